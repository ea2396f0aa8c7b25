"""A run as one long track: every bell and call at the floor's own moment, even, and never too loud."""

import json
from pathlib import Path

import numpy as np
import pytest

from yoisho.runs.calls import Call, Settings
from yoisho.runs.cues import COUNT_IN_S
from yoisho.runs.plan import Plan
from yoisho.runs.sound import (
    AFTER_S,
    FALL_S,
    FULL,
    LOUDNESS,
    RATE,
    RISE_S,
    UNDER_CALLS,
    Event,
    ducked,
    events,
    pulses,
    sound_of,
    track,
)
from yoisho.session.document import Session
from yoisho.session.shorthand import read_parts

PLAN = Plan(Session("Thirties", read_parts("Easy: 0:40 flow\nMain: 3 x (30 power bag [1-2]) rest 0:20")))
QUIET = frozenset({"swap", "switch", "kit", "cue", "combination", "next", "half", "time", "effort"})


def words(_text):
    """Half a second of a voice."""
    return np.sin(np.arange(RATE // 2) / 20).astype(np.float32)


def whole(muted=QUIET, said=words, chunk_s=10.0, pulse=False) -> np.ndarray:
    settings = Settings(muted=frozenset(muted))
    sounding = events(PLAN.timeline, PLAN.cues, PLAN.calls(settings), settings.muted, said, pulse=pulse)
    return np.concatenate(list(track(sounding, PLAN.timeline.total_s, chunk_s)))


def onset(samples: np.ndarray, sound: np.ndarray, about_s: float) -> float:
    """Where a sound begins near a moment of the track, by the best match [s]."""
    first = round((about_s - 0.05) * RATE)
    window = samples[max(0, first) : first + round(0.1 * RATE) + len(sound)]
    return (max(0, first) + int(np.argmax(np.correlate(window, sound, "valid")))) / RATE


def test_it_is_as_long_as_the_run_with_its_count_in_and_the_last_bell_rings_out():
    assert len(whole()) == round(RATE * (COUNT_IN_S + PLAN.timeline.total_s + AFTER_S))


def test_every_cue_of_the_floor_stands_at_its_moment():
    """Within a millisecond, over borders of chunks too."""
    samples = whole(chunk_s=0.7)
    for cue in PLAN.cues:
        moment = cue.at_s + COUNT_IN_S
        assert onset(samples, sound_of(cue.kind), moment) == pytest.approx(moment, abs=0.001), cue


VECTORS = json.loads((Path(__file__).resolve().parents[3] / "web/src/api/vectors.json").read_text(encoding="utf-8"))


@pytest.mark.parametrize("told", VECTORS["sounds"], ids=lambda told: told["kind"])
def test_a_bell_of_a_track_is_the_bell_of_the_floor(told):
    """The browser's own are held to the same samples."""
    samples = sound_of(told["kind"])
    assert len(samples) == told["length"]
    assert samples[told["at"]] / np.abs(samples).max() == pytest.approx(np.array(told["values"]), abs=0.002)


def test_chunks_change_nothing():
    assert np.array_equal(whole(chunk_s=10), whole(chunk_s=0.31))


def test_calls_stand_where_the_floor_says_them():
    calls = PLAN.calls(Settings())
    samples = whole(muted={"bell", "clack", "count"}, said=words)
    heard = np.flatnonzero(np.abs(samples) > 0.01) / RATE - COUNT_IN_S
    for call in calls:
        assert np.min(np.abs(heard - call.at_s)) < 0.005, call
    assert all(any(call.at_s - 0.001 <= at <= call.at_s + 0.51 for call in calls) for at in heard[::997])


def test_what_is_muted_is_silent_and_the_bell_is_one_thing():
    assert not whole(muted={*QUIET, "bell", "clack", "count"}).any()
    only_clacks = whole(muted={*QUIET, "bell", "count"})
    (clack, *_) = [cue for cue in PLAN.cues if cue.kind == "clack"]
    assert np.abs(only_clacks).max() == pytest.approx(LOUDNESS["clack"], rel=0.02)
    assert not only_clacks[: round((clack.at_s + COUNT_IN_S - 0.1) * RATE)].any()


def test_between_the_sounds_it_is_silent():
    samples = whole()
    moments = [cue.at_s + COUNT_IN_S for cue in PLAN.cues]
    free = [at for at in np.arange(0, len(samples) / RATE, 0.5) if all(not -0.5 < at - one < 3.0 for one in moments)]
    assert len(free) > 20
    assert all(not samples[round(at * RATE) : round(at * RATE) + 100].any() for at in free)


def test_nothing_clips_whatever_sounds_together():
    loud = [Event(1.0, lambda: sound_of("bell")), Event(1.0, lambda: sound_of("end")), Event(1.1, lambda: words(""))]
    samples = np.concatenate(list(track(loud, 5.0)))
    assert np.abs(samples).max() <= FULL
    assert np.abs(whole(muted=())).max() < FULL, "by its own loudness it never comes near"


def test_bells_are_equally_loud_everywhere():
    samples = whole()
    bells = [cue for cue in PLAN.cues if cue.kind == "bell"]
    peaks = {
        round(float(np.abs(samples[round((cue.at_s + COUNT_IN_S) * RATE) :][: RATE // 4]).max()), 2) for cue in bells
    }
    assert len(bells) > 3
    assert peaks == {LOUDNESS["bell"]}


def test_the_pulse_beats_as_on_the_floor_and_leaves_the_first_beat_to_the_bell():
    beats = list(pulses(PLAN.timeline))
    work = [one for one in PLAN.timeline.intervals if one.kind == "work" and one.pulse_per_min > 0]
    for interval in work:
        own = [at for at in beats if interval.start_s <= at < interval.end_s]
        assert own[0] == pytest.approx(interval.start_s + 60 / interval.pulse_per_min)
        assert len(own) == int(np.ceil(interval.seconds * interval.pulse_per_min / 60 - 1e-9)) - 1
    assert list(pulses(Plan(Session("Reps", read_parts("Reps: 20 reps power bag [1-2]"))).timeline)) == []
    assert np.abs(whole(pulse=True)).sum() > np.abs(whole()).sum()


def test_music_underneath_goes_down_for_every_call_and_comes_back():
    settings = Settings()
    calls = PLAN.calls(settings)
    hum = track([], PLAN.timeline.total_s, bed=lambda samples: np.full(samples, 0.3, np.float32), ducking=ducked(calls))
    loud = np.concatenate(list(hum))
    for call in calls:
        middle = round((call.at_s + COUNT_IN_S + call.seconds / 2) * RATE)
        assert loud[middle] == pytest.approx(0.3 * UNDER_CALLS, rel=0.01), call
    assert loud[0] == pytest.approx(0.3), "before anything is called"
    assert loud[-1] == pytest.approx(0.3), "and after the last"
    assert np.abs(np.diff(loud)).max() < 0.3 / (0.2 * RATE), "it goes down and comes up, and never jumps"


def test_the_beat_lies_well_under_every_bell_and_call():
    assert LOUDNESS["pulse"] <= 0.5 * min(loud for kind, loud in LOUDNESS.items() if kind != "pulse")


def test_calls_that_follow_close_leave_the_music_down_and_those_apart_let_it_come_back():
    near, far = Call(10.0, "cue", "hands up"), Call(30.0, "cue", "chin down")
    after = Call(10.0 + near.seconds + 0.5, "cue", "breathe")
    moments, loudness = ducked([far, after, near])
    between = COUNT_IN_S + 10.0 + near.seconds + 0.25
    assert np.interp(between, moments, loudness) == pytest.approx(UNDER_CALLS)
    assert np.interp(COUNT_IN_S + 25.0, moments, loudness) == pytest.approx(1.0)
    assert np.interp(COUNT_IN_S + 30.0 + far.seconds / 2, moments, loudness) == pytest.approx(UNDER_CALLS)
    assert np.interp(COUNT_IN_S + after.at_s + after.seconds + FALL_S + RISE_S, moments, loudness) == pytest.approx(1.0)
    long, inside = Call(50.0, "cue", " ".join(["word"] * 12)), Call(50.5, "cue", "short")
    moments, loudness = ducked([long, inside])
    assert np.interp(COUNT_IN_S + 50.0 + long.seconds - 0.1, moments, loudness) == pytest.approx(UNDER_CALLS)
