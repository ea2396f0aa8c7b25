"""What is called in a run: the right words, at the right moment, never two at once."""

from itertools import pairwise

import pytest
from hypothesis import given, settings

from tests.core.trees import trees
from yoisho.runs.calls import COUNT_S, KINDS, Call, Settings, call_schedule, spoken_time
from yoisho.session.interval import SessionError
from yoisho.session.shorthand import read
from yoisho.session.timeline import unroll


def said(text, **more):
    return [(call.at_s, call.kind, call.text) for call in call_schedule(unroll(read(text)), Settings(**more))]


def kinds(text, **more):
    return [kind for _, kind, _ in said(text, **more)]


def test_the_rest_says_what_comes_next_with_its_combination():
    at, _kind, text = next(call for call in said("2 x (1:00 power bag [1-2-3b]) rest 0:30") if call[0] > 0 and
                          call[1] == "next")  # fmt: skip
    assert text == "next: power, 1 minute. jab, cross, lead hook to the body"
    assert 60 < at < 90 - COUNT_S, "in the rest, before the count"


def test_the_first_thing_is_said_in_the_count_in():
    at, kind, text = said("30 speed")[0]
    assert (kind, text) == ("next", "first: speed, 30 seconds")
    assert at < 0


def test_a_change_without_a_rest_is_named_as_it_begins():
    calls = said("(30 technique, 30 speed, 30 power)")
    assert [(kind, text) for at, kind, text in calls if at > 0] == [("effort", "speed"), ("effort", "power")]


def test_a_change_is_named_after_its_bell_and_not_into_it():
    (at,) = (at for at, kind, _ in said("1:00 technique, 1:00 power") if kind == "effort")
    assert 60 < at < 62


def test_a_rest_too_short_for_words_leaves_the_name_to_the_bell():
    assert "next" not in kinds("3 x (20 all out) rest 0:04")[1:]


def test_sides_are_called_at_half_time_or_every_so_often_and_then_half_time_is_not():
    calls = said("2:00 flow switch at half")
    assert (60.0, "switch", "switch sides") in calls
    assert "half" not in [kind for _, kind, _ in calls]
    every = [at for at, kind, _ in said("1:00 flow switch every 0:20") if kind == "switch"]
    assert every == [20, 40]


def test_sides_are_not_switched_in_the_last_second():
    assert "switch" not in kinds("1:00 flow switch every 0:59")
    assert "switch" in kinds("1:00 flow switch every 0:58")


def test_recovery_is_named_behind_work_and_not_behind_a_rest():
    assert [(at > 30, text) for at, kind, text in said("30 power, 30 recover") if kind == "effort"] == [
        (True, "recover")
    ]
    assert "effort" not in kinds("30 power, 30 rest, 30 recover")


def test_the_coachs_own_switch_is_left_to_the_coach():
    assert "switch" not in kinds("1:00 flow switch on call")


def test_a_repeating_cue_comes_on_its_beat_and_not_with_the_bell():
    assert [at for at, kind, _ in said('40 flow call "push" every 0:10') if kind == "cue"] == [10, 20, 30]


def test_half_way_and_the_time_left_are_for_work_that_is_long_enough():
    assert (90.0, "half", "half way") in said("3:00 power")
    assert (30.0, "half", "half way") in said("1:00 power"), "from a minute on"
    assert [text for _, kind, text in said("3:00 power") if kind == "time"] == ["1 minute", "30 seconds"]
    assert not {"half", "time"} & set(kinds("45 power"))


def test_in_open_ended_work_nothing_is_called_by_the_clock_and_no_length_is_told():
    calls = said("0:30 rest, open 4:00 technique bag [1-2b], 1:00 rest", combination_every_s=15)
    assert [kind for at, kind, _ in calls if at > 30] == []
    assert next(text for at, _, text in calls if at > 0) == "next: technique. jab, cross to the body"


def test_what_comes_off_the_hands_is_called_in_the_pause_before_and_with_what_it_is_for():
    line = "1:00 flow bag in 16 oz gloves, 0:30 rest, 1:00 carry bare hands, 1:00 power bag in 16 oz gloves"
    off, on = [(at, text) for at, kind, text in said(line) if kind == "kit"]
    assert off[1] == "gloves off, carry"
    assert 60 < off[0] < 62, "at once, so that the whole pause is there for it"
    assert on[1] == "16 ounce gloves on, power"
    assert 150 < on[0] < 152, "without a pause as it begins"
    (shortest,) = (at for at, kind, _ in said("1:00 flow bag in 16 oz gloves, 0:06 rest, 1:00 carry bare hands")
                   if kind == "kit")  # fmt: skip
    assert 60 < shortest < 62
    assert "kit" not in [kind for _, kind, _ in said(line, muted=frozenset({"kit"}))]


def test_the_combination_is_called_again_where_that_is_wanted():
    line = "1:00 power bag [1-2]"
    assert "combination" not in kinds(line)
    again = [(at, text) for at, kind, text in said(line, combination_every_s=15) if kind == "combination"]
    assert again == [(15, "jab, cross"), (30, "jab, cross"), (45, "jab, cross")]


def test_the_partner_is_called_as_the_first_one_was():
    calls = said('1:00 power bag [1-2-3b] pairs switch at half call "chin" every 0:20', combination_every_s=25)
    first = [(at, kind, text) for at, kind, text in calls if 0 < at < 60]
    assert {kind for _, kind, _ in first} == {"switch", "cue", "combination"}
    partners = [(at - 60, kind, text) for at, kind, text in calls if at > 61]
    assert partners == first


def test_partners_are_swapped_by_a_call():
    assert [at for at, kind, _ in said("2 x (30 power pairs)") if kind == "swap"] == [30.2, 60.2, 90.2]


def test_reps_are_said_as_a_number_and_have_no_time():
    assert said("20 push-ups, 30 power")[0][2] == "first: 20 push-ups"


def test_a_muted_kind_is_not_said():
    assert set(kinds('2:00 flow call "push" every 0:10', muted=frozenset({"cue"}))) <= set(KINDS) - {"cue"}


def test_bells_can_be_muted_too():
    assert Settings(frozenset({"bell", "clack", "cue", "pulse"})).muted >= {"bell", "clack", "pulse"}


@pytest.mark.parametrize(
    ("wrong", "words"),
    [({"muted": frozenset({"shout"})}, "not a kind of call"), ({"combination_every_s": 2}, "every 5 to 600")],
)
def test_impossible_settings_are_refused(wrong, words):
    with pytest.raises(SessionError, match=words):
        Settings(**wrong)


def test_times_are_said_in_words_and_units():
    assert [spoken_time(s) for s in (1, 30, 60, 90, 180)] == [
        "1 second", "30 seconds", "1 minute", "1 minute 30 seconds", "3 minutes"]  # fmt: skip


@given(trees)
@settings(max_examples=60)
def test_calls_never_talk_over_each_other_nor_over_the_count_into_work(tree):
    timeline = unroll(tree)
    calls = call_schedule(timeline, Settings(combination_every_s=10))
    assert list(calls) == sorted(calls, key=lambda call: call.at_s)
    for one, other in pairwise(calls):
        assert one.at_s + one.seconds <= other.at_s + 1e-6
    starts = [i.start_s for i in timeline.intervals if i.kind == "work" or i.partner]
    spoken = [call for call in calls if call.kind in ("next", "effort", "half", "time", "combination")]
    for call in spoken:
        assert not any(call.at_s < start and call.at_s + call.seconds > start - COUNT_S for start in starts)


def test_a_longer_call_takes_longer():
    assert Call(0, "next", "jab, cross, lead hook").seconds > Call(0, "next", "jab").seconds


def test_a_cue_on_its_beat_is_called_also_in_the_seconds_of_the_count():
    calls = said('2 x (20 flow call "breathe" every 0:09), 30 power')
    assert [at for at, kind, _ in calls if kind == "cue"] == [9, 18, 29, 38]


def test_the_time_left_is_called_in_long_work_only():
    assert "time" not in kinds("1:20 power")
    assert [at for at, kind, _ in said("1:30 power") if kind == "time"] == [30, 60]


@pytest.mark.parametrize("seconds", [6, 7, 8, 9, 10, 12, 20])
def test_of_what_is_shown_all_is_called_or_nothing(seconds):
    timeline = unroll(read(f"0:{seconds:02d} show [1-2-3b], 1:00 power bag [1-2-3b]"))
    calls = call_schedule(timeline, Settings())
    said = ", ".join(call.text for call in calls if call.kind == "combination" and call.at_s < seconds)
    whole = "jab, cross, lead hook to the body"
    assert said in ("", whole, f"{whole}, {whole}")
    assert said or seconds < 8


@pytest.mark.parametrize("length", ["15", "30", "1:00"])
def test_what_is_shown_is_called_strike_by_strike_with_time_to_see_each(length):
    timeline = unroll(read(f"{length} show [1-2-3b], 1:00 power bag [1-2-3b]"))
    ends_s = timeline.intervals[0].end_s
    shown = [call for call in call_schedule(timeline, Settings()) if call.kind == "combination" and call.at_s < ends_s]
    gaps = [after.at_s - before.at_s - before.seconds for before, after in pairwise(shown)]
    assert len(shown) in (3, 6), "once, or twice where there is time"
    assert all(0.19 <= gap <= 1.51 for gap in gaps), gaps
    assert shown[-1].at_s + shown[-1].seconds <= ends_s


@pytest.mark.parametrize(("seconds", "called"), [(16, []), (17, [15]), (31, [15]), (32, [15, 30])])
def test_a_cue_leaves_the_last_second_to_the_bell(seconds, called):
    assert [at for at, kind, _ in said(f'{seconds}s flow say "breathe" every 0:15') if kind == "cue"] == called


@pytest.mark.parametrize(("rest_s", "told"), [(5, False), (6, True)])
def test_a_rest_of_six_seconds_has_room_for_words(rest_s, told):
    assert ("next" in kinds(f"20 power, {rest_s}s rest, 20 flow")[1:]) is told


def test_no_time_is_told_of_work_shorter_than_a_minute_and_a_half():
    def left(text):
        return [words for _, kind, words in said(text) if kind == "time"]

    assert left("1:29 flow") == []
    assert left("1:30 flow") == ["1 minute", "30 seconds"]


def test_with_neighbours_that_touch_nothing_is_left_out():
    """One call may end at the very moment at which another begins."""
    first = Call(10.0, "cue", "hands up")
    second = Call(10.0 + first.seconds, "cue", "chin down")
    schedule = call_schedule(unroll(read("1:00 rest")), Settings(), (first, second))
    assert [call for call in schedule if call.kind == "cue"] == [first, second]
