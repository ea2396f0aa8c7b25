"""What is called out in a run, worked out ahead from the timeline: words, and the moment each is said.

Calls never talk over each other: of two that would, the one that matters more is said. The order of weight, the
lengths and the moments are our own settings.
"""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace
from math import floor
from typing import Literal, get_args

from yoisho.runs.cues import SOUNDS, carries_on
from yoisho.runs.pairs import as_work
from yoisho.session.interval import SessionError
from yoisho.session.timeline import Timeline, TimelineInterval
from yoisho.session.wearing import kit_changes
from yoisho.strikes.notation import calls as words_of
from yoisho.strikes.tempo import TEMPOS

CallKind = Literal["move", "swap", "switch", "kit", "cue", "combination", "next", "half", "time", "effort"]
KINDS: tuple[CallKind, ...] = get_args(CallKind)
"""The weightiest first."""

SYLLABLES_A_SECOND = 4.2
"""How fast the voice speaks; a word counts as 1.6 syllables."""
BREATH_S = 0.25
NEXT_LEFT_S = 8
"""What comes next is said when so much of the rest is left, or at its start where it is shorter."""
SHORTEST_TOLD_S = 6
"""Pauses shorter than this have no room for what comes next; the effort is then named as it begins."""
HALF_FROM_S = 60
"""Work of this length or more is halved."""
TIMES_LEFT_S = (60, 30)
TIME_FROM_S = 90
"""In work of this length or more the time that is left is called."""
COUNT_S = 3.2
"""The last seconds before work belong to the count."""
FIRST_WORD_S = 0.9
"""After the bell, so that it is not drowned."""


@dataclass(frozen=True)
class Settings:
    """What is called in a session."""

    muted: frozenset[str] = frozenset()
    """Kinds of calls that are not said, and kinds of sounds that are not played."""
    combination_every_s: int | None = None
    """The combination again and again while it is done; None for once, before."""

    def __post_init__(self) -> None:
        if unknown := self.muted - {*KINDS, *SOUNDS}:
            there = ", ".join((*KINDS, *SOUNDS))
            raise SessionError(f"'{min(unknown)}' is not a kind of call or sound; there are {there}")
        every = self.combination_every_s
        if every is not None and (isinstance(every, bool) or not 5 <= every <= 600):
            raise SessionError(f"a combination is called every 5 to 600 seconds, not every {every}")


@dataclass(frozen=True)
class Call:
    at_s: float
    """From the first bell; calls of the count-in are negative."""
    kind: CallKind
    text: str

    @property
    def seconds(self) -> float:
        """How long it takes to say, an estimate."""
        return 1.6 * len(self.text.split()) / SYLLABLES_A_SECOND + BREATH_S


def what(interval: TimelineInterval) -> str:
    """An interval as a coach says it: the effort, how much of it, on what."""
    if interval.partner:
        return "partner works"
    if interval.source.shows:
        return "watch"
    what_is_done, beside = interval.source.doing
    if interval.reps is not None and interval.source.struck:
        return f"{interval.reps} reps, {TEMPOS[interval.tempo].word}"
    if interval.reps is not None:
        return f"{interval.reps} {what_is_done}"
    return f"{what_is_done}, {beside}" if beside else what_is_done


GAP_S = (0.2, 1.5)
"""Least and most between one strike and the next of what is shown."""


def _shown(interval: TimelineInterval) -> Iterator[Call]:
    """What is shown, called slowly, strike by strike: twice where there is time for it; in one breath where there is
    hardly any."""
    if interval.shown is None:
        return
    said = [Call(0, "combination", word) for word in words_of(interval.shown)]
    at_s = interval.start_s + 2 * FIRST_WORD_S
    room_s = interval.end_s - COUNT_S - at_s
    once_s = sum(each.seconds for each in said)
    least_s, most_s = GAP_S
    if once_s + (len(said) - 1) * least_s > room_s:
        yield Call(at_s, "combination", ", ".join(words_of(interval.shown)))
        return
    times = 2 if room_s >= 2 * (once_s + len(said) * least_s) else 1
    gap_s = min(most_s, max(least_s, room_s / (times * len(said)) - once_s / len(said)))
    for each in times * said:
        if at_s + each.seconds > interval.end_s:
            return
        yield replace(each, at_s=round(at_s, 2))
        at_s += each.seconds + gap_s


def combination_of(interval: TimelineInterval) -> str:
    return ", ".join(words_of(interval.combination)) if interval.combination else ""


def spoken_time(seconds: int) -> str:
    """A length as it is said: "thirty seconds", "one minute"; never a figure with a colon."""
    minutes, rest = divmod(seconds, 60)
    said = []
    if minutes:
        said.append(f"{minutes} minute{'' if minutes == 1 else 's'}")
    if rest:
        said.append(f"{rest} second{'' if rest == 1 else 's'}")
    return " ".join(said) or "now"


def _coming(interval: TimelineInterval) -> str:
    length = f", {spoken_time(interval.seconds)}" if interval.timed else ""
    combination = combination_of(interval)
    return f"{what(interval)}{length}{'. ' if combination else ''}{combination}"


def _around_rests(timeline: Timeline) -> Iterator[Call]:
    """What comes next, said in the pause before; where there is no room, the effort as it begins."""
    before: TimelineInterval | None = None
    for interval in timeline.intervals:
        if interval.partner:
            yield Call(interval.start_s + 0.2, "swap", "swap")
        elif interval.kind == "work":
            if before is None:
                yield Call(-NEXT_LEFT_S, "next", f"first: {_coming(interval)}")
            elif (
                before.kind != "work"
                and before.shown is None
                and before.seconds >= SHORTEST_TOLD_S
                and (not before.partner)
            ):
                at = max(before.start_s + FIRST_WORD_S, before.end_s - NEXT_LEFT_S - 1.5)
                yield Call(at, "next", f"next: {_coming(interval)}")
            elif before.partner:
                yield Call(interval.start_s + 0.2, "swap", "swap")
            elif carries_on(before, interval):
                yield from _a_bar_ahead(before, interval)
            elif _told(before) != _told(interval):
                yield Call(interval.start_s + FIRST_WORD_S, "effort", what(interval))
        elif interval.shown is not None or (interval.kind == "recover" and (before is None or before.kind == "work")):
            yield Call(interval.start_s + FIRST_WORD_S, "effort", what(interval))
        before = interval


BAR = 4
"""Beats by which what comes in the music is called ahead."""


def _a_bar_ahead(before: TimelineInterval, interval: TimelineInterval) -> Iterator[Call]:
    """What changes in the next eight, said so many beats before it: what is added, or that it is the other side."""
    beat = interval.source.beat
    if beat is None or (_told(before) == _told(interval) and before.source.lead == interval.source.lead):
        return
    was, now = before.combination, interval.combination
    said, saying = (words_of(one) if one else [] for one in (was, now))
    if said == saying:
        what_comes = "other side"
    elif said == saying[: len(said)]:
        what_comes = f"add {', '.join(saying[len(said) :])}"
    else:
        what_comes = ", ".join(saying) or what(interval)
    yield Call(round(interval.start_s - 60 * BAR / beat.per_min, 2), "cue", f"in four: {what_comes}")


def _kit(timeline: Timeline) -> Iterator[Call]:
    """What is put on or taken off: at once in the pause before, or as the work begins where there is none."""
    for change in kit_changes(timeline):
        words = f"{', '.join(change.words)}, {what(timeline.intervals[change.index])}"
        pause_s = change.room_s if change.room_s >= SHORTEST_TOLD_S else 0
        yield Call(change.at_s - pause_s + FIRST_WORD_S, "kit", words)


def _told(interval: TimelineInterval) -> tuple[str, str]:
    return what(interval), combination_of(interval)


def switches(interval: TimelineInterval) -> Iterator[float]:
    """When sides are switched inside an interval [s from the first bell]; the partner switches as well."""
    every = interval.source.switch
    if interval.reps is not None or every in (None, "call"):
        return
    step = interval.seconds / 2 if every == "half" else float(every or 0)
    at = step
    while at < interval.seconds - 1:
        yield interval.start_s + at
        at += step


def _inside(interval: TimelineInterval, settings: Settings) -> Iterator[Call]:
    """What is called by the clock while somebody works; the partner's turn is called as the first one's was."""
    interval = as_work(interval)
    yield from _shown(interval)
    if interval.kind == "rest" or not interval.timed:
        return
    switched = tuple(switches(interval))
    for at in switched:
        yield Call(at, "switch", "switch sides")
    for cue in interval.source.cues:
        at = float(cue.every_s)
        while at < interval.seconds - 1:
            yield Call(interval.start_s + at, "cue", cue.text)
            at += cue.every_s
    every, combination = settings.combination_every_s, combination_of(interval)
    if every and combination:
        at = float(every)
        while at < interval.seconds - 2:
            yield Call(interval.start_s + at, "combination", combination)
            at += every
    if interval.kind != "work":
        return
    if interval.seconds >= HALF_FROM_S and not switched:
        yield Call(interval.start_s + interval.seconds / 2, "half", "half way")
    if interval.seconds >= TIME_FROM_S:
        for left in TIMES_LEFT_S:
            yield Call(interval.end_s - left, "time", spoken_time(left))


def _counted_in(timeline: Timeline) -> list[tuple[float, float]]:
    """Stretches that belong to the count before work."""
    around = zip((None, *timeline.intervals), timeline.intervals, strict=False)
    starts = [i.start_s for before, i in around if (i.kind == "work" or i.partner) and not carries_on(before, i)]
    return [(start - COUNT_S, start + 0.0) for start in starts]


def call_schedule(
    timeline: Timeline, settings: Settings | None = None, beside: Iterable[Call] = ()
) -> tuple[Call, ...]:
    """Every call of a run, in order, none over another and none over the count into work; those told `beside` too.

    All kinds that are not muted stand in it. A coach's own switch ("on call") is left to the coach.
    """
    settings = settings or Settings()
    inside = (call for interval in timeline.intervals for call in _inside(interval, settings))
    found = [*beside, *_around_rests(timeline), *_kit(timeline), *inside]
    wanted = sorted(
        (call for call in found if call.kind not in settings.muted),
        key=lambda call: (KINDS.index(call.kind), call.at_s),
    )
    kept: list[Call] = []
    taken: list[tuple[float, float]] = []
    counts = _counted_in(timeline)
    for call in wanted:
        start, end = call.at_s, call.at_s + call.seconds
        # What is said before work may not run into its count; a cue on the beat may.
        blocked = taken if call.kind in ("swap", "switch", "cue") else [*taken, *counts]
        clash = [span for span in blocked if start < span[1] and end > span[0]]
        if clash and call.kind == "next":
            # It is said a little sooner, if there is room.
            start = min(span[0] for span in clash) - call.seconds
            call = Call(floor(100 * start) / 100, call.kind, call.text)
            start, end = call.at_s, call.at_s + call.seconds
            clash = [span for span in blocked if start < span[1] and end > span[0]]
        if not clash:
            kept.append(call)
            taken.append((start, end))
    return tuple(sorted(kept, key=lambda call: call.at_s))
