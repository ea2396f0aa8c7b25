from hypothesis import given

from tests.core.trees import trees
from yoisho.runs.cues import COUNT_IN_S, cue_schedule
from yoisho.session.shorthand import read
from yoisho.session.timeline import unroll


def cues(text):
    return [(cue.at_s, cue.kind) for cue in cue_schedule(unroll(read(text)))]


def test_the_first_bell_is_counted_in():
    assert cues("1:00 power")[:4] == [(-3, "count"), (-2, "count"), (-1, "count"), (0, "bell")]
    assert COUNT_IN_S > 3


def test_what_comes_first_begins_with_the_bell_also_where_it_is_a_rest():
    assert next(kind for at, kind in cues("30 rest, 30 power") if at == 0) == "bell"


def test_ten_seconds_left_are_clacked():
    assert (50, "clack") in cues("1:00 power")


def test_a_short_interval_has_no_room_for_a_clack():
    assert "clack" not in [kind for _, kind in cues("8 x (15 power) rest 0:15")]


def test_of_what_the_clock_does_not_end_nothing_says_when_it_ends():
    for line in ("open 1:00 technique, 1:00 power", "40 reps power [3b-2] then 1:00 power"):
        schedule = cues(line)
        (second,) = [at for at, kind in schedule if kind == "change"]
        assert [kind for at, kind in schedule if 0 < at < second] == [], "no clack, and no count into what follows"
    rested = cues("open 1:00 technique; then 0:30, 1:00 power")
    assert [at for at, kind in rested if kind == "count" and at > 0] == [87, 88, 89], "a rest is counted down"


def test_a_bell_opens_and_closes_the_rest_and_work_is_counted_in():
    schedule = cues("2 x (30 power) rest 0:20")
    assert [(at, kind) for at, kind in schedule if kind == "bell"] == [(0, "bell"), (30, "bell"), (50, "bell")]
    assert [at for at, kind in schedule if kind == "count" and 30 < at < 50] == [47, 48, 49]


def test_thirds_of_a_round_change_without_a_bell():
    assert [at for at, kind in cues("30 technique, 30 speed, 30 power") if kind == "change"] == [30, 60]


def test_the_partner_is_counted_in_too():
    counted = [at for at, kind in cues("2 x (30 power pairs)") if kind == "count" and 0 < at < 60]
    assert counted == [27, 28, 29, 57, 58, 59]


def test_the_last_bell_is_its_own():
    assert cues("2 x (30 power) rest 0:20")[-1] == (80, "end")


@given(trees)
def test_cues_come_in_order_inside_the_run_with_one_end(tree):
    timeline = unroll(tree)
    schedule = cue_schedule(timeline)
    moments = [cue.at_s for cue in schedule]
    assert moments == sorted(moments)
    assert moments[0] >= -COUNT_IN_S
    assert [cue.at_s for cue in schedule if cue.kind == "end"] == [timeline.total_s]


@given(trees)
def test_every_interval_is_announced_once(tree):
    timeline = unroll(tree)
    announced = [cue.at_s for cue in cue_schedule(timeline) if cue.kind in ("bell", "change")]
    assert announced == [interval.start_s for interval in timeline.intervals]


def test_a_count_does_not_begin_with_the_rest_it_counts_down():
    """Three seconds of rest: the bell says that they begin, and two and one are counted."""
    assert [at for at, kind in cues("20 power, 3s rest, 20 power") if kind == "count" and at > 0] == [21, 22]
    assert [at for at, kind in cues("20 power, 4s rest, 20 power") if kind == "count" and at > 0] == [21, 22, 23]


def test_twenty_seconds_are_the_shortest_that_are_clacked():
    assert [(seconds, "clack" in [kind for _, kind in cues(f"{seconds}s power")]) for seconds in (19, 20)] == [
        (19, False), (20, True)
    ]  # fmt: skip
