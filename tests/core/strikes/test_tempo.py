"""A tempo says all that follows from it in one entry: none is half done."""

import pytest

from yoisho.strikes.tempo import LADDER, TEMPOS, tempo_spellings


@pytest.mark.parametrize("tempo", TEMPOS.values(), ids=lambda tempo: tempo.id)
def test_every_tempo_is_whole(tempo):
    assert (tempo.pace is None) == (tempo.strikes_per_min == 0), "what is struck has a pace, and nothing else has"
    assert (tempo.pace is None) == (tempo.reset_s == 0)
    assert tempo.kind == "work" or not (tempo.rung or tempo.skilled or tempo.avoidable)
    assert tempo.meaning
    assert (tempo.kind == "rest") == (tempo.rpe == 0)


def test_the_ladder_climbs_in_demand_and_every_rung_is_one_tempo():
    demands = [TEMPOS[tempo].demand_frac for tempo in LADDER]
    assert demands == sorted(set(demands))
    assert [TEMPOS[tempo].rung for tempo in LADDER] == [*range(1, len(LADDER) + 1)]


def test_no_spelling_names_two_tempos():
    spelled = [word for t in TEMPOS.values() for word in dict.fromkeys((t.word, t.id, *t.aliases))]
    assert len(spelled) == len(set(spelled)) == len(tempo_spellings())
