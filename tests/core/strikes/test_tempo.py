"""A tempo says all that follows from it in one entry: none is half done."""

import pytest

from yoisho.engine.strike_cost import BLOWS, blow_of
from yoisho.strikes.combination import Action
from yoisho.strikes.techniques import TECHNIQUES
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


@pytest.mark.parametrize("tempo", TEMPOS.values(), ids=lambda tempo: tempo.id)
def test_what_is_struck_has_its_force_and_all_work_its_share(tempo):
    assert (tempo.force is None) == (tempo.pace is None)
    assert (tempo.share > 0) == (tempo.kind != "rest")
    assert tempo.burst is None or tempo.burst[1] > tempo.share


def test_every_technique_that_strikes_has_its_limb():
    for technique in TECHNIQUES.values():
        height = technique.heights[0] if technique.heights else None
        blow = blow_of(Action(technique.id, technique.sides[0] if technique.sides else None, height))
        assert (blow in BLOWS) == technique.strikes


def test_only_all_out_asks_for_the_top_rate():
    assert [tempo.id for tempo in TEMPOS.values() if tempo.top_rate] == ["all-out"]
