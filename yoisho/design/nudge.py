"""Nudges: one small change to a session, with what it would do; and the shortest series of them that reaches a purpose.

The steps are our own settings: what a coach would try next.
"""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from math import ceil
from typing import Any, Literal

from yoisho.engine.person import Person
from yoisho.engine.readout import NoWorkError, Reading, read
from yoisho.judgement.cautions import CURABLE, Caution, cautions, stops
from yoisho.judgement.circumstances import Circumstances
from yoisho.judgement.targets import TARGETS, Target
from yoisho.judgement.verdict import Verdict, in_ten, judge, measure_values, say, score
from yoisho.protocols.frames import warm_up
from yoisho.session.clock import clock
from yoisho.session.document import Session
from yoisho.session.interval import POWER_PERCENT, RESET_S, Interval, SessionError
from yoisho.session.purposes import FRAMES
from yoisho.session.tree import Node, Repeat, Sequence, interval_count
from yoisho.strikes.tempo import LADDER, TEMPOS

SAMPLE_S = 5.0
MOST_SHOWN = 4
LEAST_GAIN = 0.01
"""A nudge that lifts the score by less is noise."""
SURE = 0.8
"""Of all like this person: under it, a change that makes more of them reach the purpose is worth telling."""
SURER = 0.1
"""What it must gain at least."""
SURER_COST = 0.02
"""What it may cost the score."""
SURER_TRIED = 12
"""Of those nearest to the purpose: each is simulated for all who are like this person."""
CURE_COST = 0.15
"""What a cure may cost the score at the most: less hard for the purpose, and safer."""
REACHED = 4
"""Strokes from which a session trains its purpose."""
MOST_STEPS = 4
POWER_STEP = 10
"""Of a strike's energy, from one nudge to the next [% of a full one]."""
BEAM = 3
"""Sessions kept from step to step."""


Knob = Literal["rest", "rounds", "work", "effort", "strikes", "side"]
SURER_KNOBS: frozenset[str] = frozenset({"rest", "rounds", "work", "effort"})
"""Those that change how hard the work is for anybody."""


@dataclass(frozen=True)
class Change:
    """What a nudge does to one measure of the purpose."""

    name: str
    before: str
    after: str


@dataclass(frozen=True)
class Nudge:
    name: str
    knob: Knob
    part: int
    """Which part it changes."""
    session: Session
    score: float
    strokes: int
    changes: tuple[Change, ...]
    cures: tuple[str, ...]
    """Rules of cautions that then fall silent."""
    fits: bool
    """Whether it then trains the purpose, and none more."""


@dataclass(frozen=True)
class Series:
    """The shortest series of nudges that reaches the purpose; as near as it gets where none does."""

    steps: tuple[str, ...]
    session: Session
    strokes: int
    reached: bool


def _round(seconds: int, step: int) -> int:
    return max(step, step * round(seconds / step))


@dataclass(frozen=True)
class Turn:
    """One knob, turned by a notch."""

    name: str
    knob: Knob
    up: bool | None = None
    """More of it, or less; None where it is neither."""


Option = tuple[Turn, dict[str, Any]]
"""A turn, and the fields it changes."""


def _of_interval(node: Interval) -> Iterator[Option]:
    word = TEMPOS[node.tempo].word
    if node.seconds is not None:
        step = 1 if node.seconds < 10 else 5 if node.seconds < 60 else 15 if node.seconds < 300 else 60
        for by, longer in ((step, "longer"), (-step, "shorter")):
            if node.seconds + by >= step:
                turn = Turn(f"{clock(step)} {longer} {word}", "work" if node.kind == "work" else "rest", by == step)
                yield turn, {"seconds": _round(node.seconds + by, step)}
    else:
        by = max(1, max(node.reps) // 10)
        a_round = " a round" if len(node.reps) > 1 else ""
        for count, more in ((by, "more"), (-by, "fewer")):
            if min(node.reps) + count >= 1:
                turn = Turn(f"{by} rep{'' if by == 1 else 's'} {more}{a_round}", "work", count == by)
                yield turn, {"reps": tuple(reps + count for reps in node.reps)}
    if node.kind != "work":
        return
    if node.tempo in LADDER:
        at = LADDER.index(node.tempo)
        for step in (1, -1):
            if 0 <= at + step < len(LADDER):
                other = LADDER[at + step]
                yield Turn(f"{TEMPOS[other].word} instead of {word}", "effort", step > 0), {"tempo": other}
    if node.drill is not None and node.seconds is not None and node.beat is None and node.per_min is None:
        reset_s = node.reset_s if node.reset_s is not None else ceil(TEMPOS[node.tempo].reset_s)
        if reset_s:
            yield Turn("a shorter reset", "strikes", up=True), {"reset_s": reset_s - 1}
        if reset_s < RESET_S[1]:
            yield Turn("a longer reset", "strikes", up=False), {"reset_s": reset_s + 1}
    if node.struck and node.seconds is not None and node.beat is None and not TEMPOS[node.tempo].top_rate:
        yield from _of_strikes(node)
    if node.struck and node.switch is None and node.drill is not None and node.seconds is not None:
        yield Turn("sides changed at half", "side"), {"switch": "half"}


def _of_strikes(node: Interval) -> Iterator[Option]:
    """Fewer and harder, or more and lighter, for the same energy; of a rate that is fixed, the rate alone too."""
    if node.force is None:
        return
    power = round(100 * node.force**2)
    for name, by in (("fewer, harder", POWER_STEP), ("more, lighter", -POWER_STEP)):
        other = power + by
        if not POWER_PERCENT[0] <= other <= POWER_PERCENT[1]:
            continue
        if node.per_min is None:
            # A word says how hard the work is: how many fall in it follows.
            yield Turn(f"{name}: {other} % power", "strikes"), {"power_percent": other}
        else:
            rate = round(node.per_min * power / other)
            turn = Turn(f"{name}: {rate} a minute at {other} % power", "strikes")
            yield turn, {"per_min": rate, "power_percent": other}
    if node.per_min is not None:
        by = max(1, 5 * round(node.per_min / 50))
        told = f"{by} strike{'' if by == 1 else 's'} a minute"
        yield Turn(f"{told} more", "strikes", up=True), {"per_min": node.per_min + by}
        yield Turn(f"{told} fewer", "strikes", up=False), {"per_min": node.per_min - by}


def _what(node: Repeat) -> str:
    """A repeat of repeats is counted in sets."""
    items = node.body.items if isinstance(node.body, Sequence) else (node.body,)
    return "set" if any(isinstance(item, Repeat) for item in items) else "round"


def _last(node: Node) -> Interval:
    """What a stretch ends with."""
    while not isinstance(node, Interval):
        node = node.items[-1] if isinstance(node, Sequence) else node.body
    return node


def _of_repeat(node: Repeat) -> Iterator[Option]:
    by = max(1, round(node.count / 8))
    for count, more in ((by, "more"), (-by, "fewer")):
        if node.count + count >= 1:
            turn = Turn(f"{by} {_what(node)}{'' if by == 1 else 's'} {more}", "rounds", count == by)
            yield turn, {"count": node.count + count}
    pause = node.between
    if pause is None:
        if _last(node.body).kind == "rest":
            return  # that one is made longer in its own place
        yield Turn("0:30 rest between", "rest", up=True), {"between": Interval(30, "rest")}
        return
    seconds = pause.length_s()
    step = 5 if seconds < 45 else 15 if seconds < 150 else 30
    for by, more in ((step, "more"), (-step, "less")):
        if seconds + by >= step:
            changed = replace(pause, seconds=_round(seconds + by, step))
            yield Turn(f"{clock(step)} {more} {pause.tempo} between", "rest", by == step), {"between": changed}


def _possible(node: Interval | Repeat, options: Iterator[Option]) -> Iterator[tuple[Turn, Node]]:
    for turn, change in options:
        try:
            yield turn, replace(node, **change)
        except SessionError:
            continue


def variants(node: Node) -> Iterator[tuple[Turn, Node]]:
    """Every small change to a tree, named."""
    match node:
        case Interval():
            yield from _possible(node, _of_interval(node))
        case Sequence():
            for index, item in enumerate(node.items):
                for turn, changed in variants(item):
                    yield turn, Sequence((*node.items[:index], changed, *node.items[index + 1 :]))
        case Repeat():
            yield from _possible(node, _of_repeat(node))
            for turn, changed in variants(node.body):
                yield turn, replace(node, body=changed)


WARM_UP = warm_up(300, 180)


def candidates(session: Session, *, framed: bool = True) -> Iterator[tuple[Turn, int, Session]]:
    """Every small change to the main parts, named, with its part; with `framed`, a warm-up before a session without."""
    parts = session.parts
    if framed and not any(part.purpose == "warm-up" for part in parts):
        yield Turn("a warm-up of 8:00 before it", "work"), 0, replace(session, parts=(WARM_UP, *parts))
    for index, part in enumerate(parts):
        if part.purpose in FRAMES:
            continue
        for turn, tree in variants(part.tree):
            changed = (*parts[:index], replace(part, tree=tree), *parts[index + 1 :])
            yield turn, index, replace(session, parts=changed)


def simulated(person: Person, session: Session, *, ranges: bool = False) -> Reading | None:
    """The session read for a search; None where there is nothing to do, or it cannot be done."""
    try:
        return read(person, session.unrolled(), ranges=ranges, sample_s=SAMPLE_S)
    except (SessionError, NoWorkError):
        return None


class Judge:
    """Reads and scores sessions for one person, purpose, day and time."""

    def __init__(self, person: Person, target_id: str, circumstances: Circumstances, longest_s: int | None):
        self.person, self.longest_s = person, longest_s
        self.circumstances = replace(circumstances, purpose=target_id)
        self.target: Target = TARGETS[target_id]

    def read(self, session: Session) -> Reading | None:
        """None where there is nothing to do, where it cannot be done, or not in so many seconds."""
        if self.longest_s is not None and session.total_s > self.longest_s:
            return None
        return simulated(self.person, session)

    def sureness(self, session: Session) -> float:
        """In what share of all like this person the session reaches the purpose."""
        reading = simulated(self.person, session, ranges=True)
        found = reading and self.verdict(reading, self.spoken(reading)).sureness
        return found or 0.0

    def spoken(self, reading: Reading) -> tuple[Caution, ...]:
        return cautions(reading, self.circumstances)

    def verdict(self, reading: Reading, spoken: tuple[Caution, ...]) -> Verdict:
        return judge(reading, self.target.id, spoken)

    def score(self, reading: Reading) -> float:
        """That of the verdict, without the rest of it."""
        return score(self.target, measure_values(reading, self.target.id))

    def changes(self, before: Reading, after: Reading) -> tuple[Change, ...]:
        was, now = measure_values(before, self.target.id), measure_values(after, self.target.id)
        told = []
        for measure in self.target.measures:
            pair = say(was[measure.figure], measure.unit), say(now[measure.figure], measure.unit)
            if pair[0] != pair[1]:
                told.append(Change(measure.label, *pair))
        # What leaves the purpose as it is changes what lands.
        return tuple(told) or (Change("strikes", _struck(before), _struck(after)),)


def _struck(reading: Reading) -> str:
    return f"about {reading.measured.strikes.sum():.0f}"


def _fits(verdict: Verdict) -> bool:
    """Whether the purpose is trained, and none more."""
    return verdict.strokes >= REACHED and verdict.trains_best == verdict.target


def _nudged(judge_: Judge, session: Session, least_gain: float = LEAST_GAIN) -> list[Nudge]:
    """All that are possible, call up no new caution, and gain so much; the best first."""
    before = judge_.read(session)
    if before is None:
        return []
    rules = {caution.rule for caution in judge_.spoken(before)}
    curable, start = rules & CURABLE, judge_.score(before)
    least, least_of_cures = start + least_gain, start - CURE_COST
    found = []
    for turn, part, changed in candidates(session):
        after = judge_.read(changed)
        if after is None:
            continue
        reached = judge_.score(after)
        # Most gain nothing: what speaks against them need not be asked.
        if reached < (least_of_cures if curable else least):
            continue
        said = judge_.spoken(after)
        spoken = {caution.rule for caution in said}
        cured = tuple(sorted(curable - spoken))
        if stops(said) or spoken - rules or reached < (least_of_cures if cured else least):
            continue
        verdict = judge_.verdict(after, said)
        changes = judge_.changes(before, after)
        found.append(
            Nudge(turn.name, turn.knob, part, changed, verdict.score, verdict.strokes, changes, cured, _fits(verdict))
        )
    return sorted(found, key=lambda each: (len(each.cures), each.score), reverse=True)


def _surer(judge_: Judge, session: Session, near: list[Nudge]) -> list[Nudge]:
    """Of changes near to the purpose that it reaches, the one that lets most more of all like this person reach it,
    where too few of them do."""
    before = judge_.sureness(session)
    if before >= SURE:
        return []
    tried = [each for each in near if each.knob in SURER_KNOBS and each.strokes >= REACHED and not each.cures]
    found = [(judge_.sureness(each.session), each) for each in tried[:SURER_TRIED]]
    after, best = max(found, key=lambda each: each[0], default=(0.0, None))
    if best is None or after < before + SURER:
        return []
    told = Change("sureness", in_ten(before), in_ten(after))
    return [replace(best, changes=(told, *best.changes))]


def _longest_s(session: Session, minutes: int | None) -> int | None:
    """The seconds that a change may take; a session that is longer already gets no longer."""
    return None if minutes is None else max(60 * minutes, session.total_s)


def nudges(
    person: Person,
    session: Session,
    target_id: str,
    circumstances: Circumstances | None = None,
    minutes: int | None = None,
) -> tuple[Nudge, ...]:
    """The best small changes that serve the purpose, each with what it would do; for every caution that one can cure
    the best that does stands first, then what makes a purpose that is reached the surer."""
    judge_ = Judge(person, target_id, circumstances or Circumstances(), _longest_s(session, minutes))
    begun = judge_.read(session)
    if begun is None:
        return ()
    start = judge_.verdict(begun, judge_.spoken(begun))
    near = _nudged(judge_, session, -SURER_COST)
    found = [each for each in near if each.cures or each.score >= start.score + LEAST_GAIN]
    surer = _surer(judge_, session, near) if start.strokes >= REACHED else []
    cures: dict[str, Nudge] = {}
    for nudge in found:
        for rule in nudge.cures:
            cures.setdefault(rule, nudge)
    first = [*dict.fromkeys(cures.values()), *surer]
    taken = [nudge.session for nudge in first]
    return tuple([*first, *(nudge for nudge in found if nudge.session not in taken)][: max(MOST_SHOWN, len(first))])


MOST_SEARCHED = 600
"""Intervals of a session for which hundreds of others are worked out: beyond them it would take longer than anybody
waits. Own setting; the longest class that was measured has a fifth of it."""


class TooLargeError(ValueError):
    """A session that is too large to search from: how large, and what to do."""


def searchable(session: Session) -> None:
    """Raises `TooLargeError` where a search from it would take too long."""
    count = sum(interval_count(part.tree) for part in session.parts)
    if count > MOST_SEARCHED:
        raise TooLargeError(
            f"This session has {count} intervals, and from up to {MOST_SEARCHED} another can be worked out. "
            "Take fewer repetitions, or a part of it alone."
        )


def make_it_so(
    person: Person,
    session: Session,
    target_id: str,
    circumstances: Circumstances | None = None,
    minutes: int | None = None,
) -> Series:
    """The shortest series of nudges after which the session trains its purpose, within the minutes.

    Raises `TooLargeError`.
    """
    searchable(session)
    judge_ = Judge(person, target_id, circumstances or Circumstances(), _longest_s(session, minutes))
    begun = judge_.read(session)
    if begun is None:
        return Series((), session, 0, reached=False)
    start = judge_.verdict(begun, judge_.spoken(begun))
    best = Series((), session, start.strokes, _fits(start))
    if best.reached:
        return best
    beam: list[tuple[float, Series]] = [(start.score, best)]
    nearest = start.score
    for _ in range(MOST_STEPS):
        following: dict[str, tuple[float, Series]] = {}
        for _score, series in beam:
            for nudge in _nudged(judge_, series.session):
                step = Series((*series.steps, nudge.name), nudge.session, nudge.strokes, nudge.fits)
                following.setdefault(str(nudge.session.parts), (nudge.score, step))
        beam = sorted(following.values(), key=lambda each: each[0], reverse=True)[:BEAM]
        if not beam:
            break
        done = [step for step in beam if step[1].reached]
        if done or beam[0][0] > nearest:
            nearest, best = (done or beam)[0]
        if best.reached:
            break
    return best
