import pytest
from hypothesis import given

from tests.core.strikes.test_notation import combinations
from yoisho.strikes.combination import Action, Combination, CombinationError, action, mirrored
from yoisho.strikes.counts import counts, pass_s
from yoisho.strikes.generate import adding_rounds, alternating, ladder, pyramid, pyramid_with_finish
from yoisho.strikes.notation import read, write
from yoisho.strikes.techniques import TECHNIQUES, Technique
from yoisho.strikes.tempo import TEMPOS


def test_strikes_are_counted_by_limb_and_level_and_defence_apart():
    held = counts(read("1-2-3b, slip, 2, rk-l, pivot"))
    assert held.limbs == {"left hand": 2, "right hand": 2, "right leg": 1}
    assert held.heights == {"head": 3, "body": 1, "leg": 1}
    assert (held.strikes, held.defences, held.steps) == (5, 1, 1)


def test_a_left_handers_jab_is_the_right_hand():
    # common practice, no source
    assert counts(read("1"), "southpaw").limbs == {"right hand": 1}
    assert counts(read("rk-m"), "southpaw").limbs == {"right leg": 1}


@given(combinations)
def test_every_strike_has_one_limb_and_one_level(combination):
    for stance in ("orthodox", "southpaw"):
        held = counts(combination, stance)
        assert sum(held.limbs.values()) == sum(held.heights.values()) == held.strikes


@given(combinations)
def test_twice_mirrored_is_the_same_and_mirrored_strikes_the_other_limbs(combination):
    other = mirrored(combination)
    assert mirrored(other) == combination
    swap = {"left hand": "right hand", "right hand": "left hand", "left leg": "right leg", "right leg": "left leg"}
    assert counts(other).limbs == {swap[limb]: n for limb, n in counts(combination).limbs.items()}


def test_every_tempo_with_strikes_has_its_pace_and_reset():
    striking = {t.id for t in TEMPOS.values() if t.strikes_per_min}
    assert {tempo.id for tempo in TEMPOS.values() if tempo.pace} == striking


def test_a_pass_takes_longer_at_technique_than_at_speed():
    line = read("1-2-3b, slip, 2")
    assert pass_s(line, "technique") > pass_s(line, "combination") > pass_s(line, "speed")


def test_punching_by_combination_comes_near_the_rate_of_its_tempo():
    """Own settings on both sides: they must not contradict each other by more than a half."""
    line = read("1-2-3-2")
    per_min = 60 / pass_s(line, "combination") * line.strikes
    assert per_min == pytest.approx(TEMPOS["combination"].strikes_per_min, rel=0.5)


@pytest.mark.parametrize("text", ["1", "1-2", "1-2-3b-2", "1-2-3-4-5-6"])
def test_a_pyramid_of_n_techniques_gives_n_times_n_plus_one_half_strikes(text):
    # common practice, no source
    line = read(text)
    n = line.strikes
    assert sum(step.strikes for step in pyramid(line)) == n * (n + 1) // 2


def test_a_pyramid_can_end_every_step_the_same_way():
    assert [write(step) for step in pyramid_with_finish(read("1-2"), read("3"))] == ["1-3", "1-2-3"]


def test_a_ladder_goes_down_the_counts():
    # 9-7-5-3 hooks; common practice, no source
    assert sum(step.strikes for step in ladder(action("hook"), (9, 7, 5, 3))) == 24
    assert [step.strikes for step in ladder(action("hook"), (3, 2, 1))] == [3, 2, 1]
    with pytest.raises(CombinationError, match="9, 7, 5, 3"):
        ladder(action("hook"), ())


def test_rounds_that_add_end_with_the_recap_of_all():
    rounds = adding_rounds((read("5-2-4"), read("1-3-2"), read("slip, 2")))
    assert [write(each) for each in rounds] == ["5-2-4", "5-2-4 then 1-3-2", "5-2-4 then 1-3-2 then slip, 2"]


def test_kicks_in_turn_keep_the_legs_even():
    # common practice, no source
    held = counts(alternating(read("lk-m"), 3, read("rk-m"), 3, times=2))
    assert held.limbs == {"right leg": 6, "left leg": 6}
    with pytest.raises(CombinationError, match="at least one"):
        alternating(read("1"), 0, read("2"), 1)


def test_the_share_of_the_legs_is_among_the_strikes_and_not_among_all_that_is_done():
    assert read("1, slip, rk-m, step").leg_share == 0.5
    assert read("slip, step").leg_share == 0


def test_what_is_done_with_one_side_only_has_no_other_side_and_stays_as_it_is(monkeypatch):
    one_sided = Technique("sweep", "sweep", "kick", ("lead",), ("leg",), 0.9)
    monkeypatch.setitem(TECHNIQUES, "sweep", one_sided)
    swept = Combination(((Action("sweep", "lead", "leg"), Action("jab", "lead", "head")),))
    assert mirrored(swept) == Combination(((Action("sweep", "lead", "leg"), Action("cross", "rear", "head")),))


@pytest.mark.parametrize("technique", TECHNIQUES.values(), ids=lambda technique: technique.id)
def test_every_technique_can_be_mirrored_there_and_back(technique):
    for side in technique.sides or (None,):
        once = Combination(((action(technique.id, side),),))
        assert mirrored(mirrored(once)) == once
    assert technique.mirror is None or TECHNIQUES[technique.mirror].mirror == technique.id


@pytest.mark.parametrize("groups", [(), ((),), ((action("jab"),), ())])
def test_a_combination_without_a_technique_in_every_group_is_none(groups):
    with pytest.raises(CombinationError, match="at least one technique"):
        Combination(groups)
