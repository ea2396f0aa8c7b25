import pytest

from tests.core.people import club_boxer
from yoisho.design.propose import FAMILIES, ProposalError, propose
from yoisho.engine.person import person
from yoisho.engine.readout import read
from yoisho.judgement.targets import TARGETS
from yoisho.judgement.verdict import judge
from yoisho.session.tempo import TEMPOS
from yoisho.session.timeline import unroll


@pytest.mark.parametrize("target", TARGETS)
@pytest.mark.parametrize("minutes", [20, 40])
def test_a_proposal_fits_the_minutes_and_the_purpose(target, minutes):
    found = propose(club_boxer(), target, minutes)
    timeline = unroll(*(part.tree for part in found.session.parts))
    assert timeline.total_s <= 60 * minutes
    verdict = judge(read(club_boxer(), timeline, ranges=False), target)
    assert verdict.strokes >= 4
    assert verdict.score == pytest.approx(found.score)


@pytest.mark.parametrize("target", TARGETS)
def test_forty_minutes_are_used_not_left_over(target):
    found = propose(club_boxer(), target, 40)
    assert unroll(*(part.tree for part in found.session.parts)).total_s > 60 * 28


def test_hard_work_is_proposed_behind_a_warm_up():
    for target in ("sprint-power", "lactic-capacity"):
        parts = propose(club_boxer(), target, 30).session.parts
        assert [part.name for part in parts] == ["Warm-up", "Main set", "Cool-down"]
        warm = unroll(parts[0].tree)
        assert warm.work_s >= 300
        assert all(TEMPOS[i.tempo].demand_frac < 0.85 for i in warm.intervals)


def test_a_proposal_is_made_for_the_person():
    lines = {
        str(propose(person(vo2max_ml_kg_min=vo2max, level="club"), "lactic-capacity", 25).session.parts)
        for vo2max in (28, 50, 75)
    }
    assert len(lines) > 1


def test_every_purpose_has_a_school_with_a_reason_and_a_source():
    assert {family.target for family in FAMILIES} == set(TARGETS)
    for family in FAMILIES:
        assert family.reason
        assert family.source


@pytest.mark.parametrize("minutes", [0, 3, 121])
def test_impossible_minutes_are_refused_with_the_possible_ones(minutes):
    with pytest.raises(ProposalError, match="from 4 to 120"):
        propose(club_boxer(), "aerobic-base", minutes)


def test_too_little_time_says_what_to_do():
    with pytest.raises(ProposalError, match="give more"):
        propose(club_boxer(), "sprint-power", 4)
