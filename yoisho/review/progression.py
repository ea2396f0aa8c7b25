"""What to do next time, by the trade's own rule, from what was done the last times.

Two clean goes turn one knob by one notch; what was not finished, or was two points harder than expected, is held, and
twice in a row goes a notch back; a limb that hurts is left out. Common practice, no source; the order of the knobs is
our own setting.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Literal

from yoisho.design.nudge import Change, Judge, Knob, Turn, candidates
from yoisho.engine.person import Person
from yoisho.engine.readout import Reading
from yoisho.judgement.cautions import stops
from yoisho.judgement.circumstances import Circumstances
from yoisho.judgement.fade import fade_bound
from yoisho.judgement.targets import TARGETS
from yoisho.judgement.verdict import say
from yoisho.session.document import Session

CLEAN_IN_A_ROW = 2
TOO_HARD = 2.0
"""Points over what was expected, from which a session was too hard."""

_REST_FIRST: tuple[Knob, ...] = ("rest", "rounds", "work", "effort")
ORDER: dict[str, tuple[Knob, ...]] = {
    "sprint-power": ("rounds", "work", "effort"),
    "sprint-capacity": ("rounds", "rest", "work", "effort"),
    "lactic-power": ("rounds", "work", "effort", "rest"),
    "aerobic-base": ("work", "rounds", "effort", "rest"),
    "skill": ("rounds", "work", "effort"),
    "fight-rehearsal": ("rounds", "effort"),
}
"""Which knob is turned first for a purpose; rest down, rounds, work, effort where none is named. Sprints keep their
rest: it is what they are made of. A rehearsal keeps the bout's own times. Own setting."""
UP: dict[Knob, bool] = {"rest": False, "rounds": True, "work": True, "effort": True}
"""Which way each is turned to make it harder."""

Step = Literal["on", "hold", "back"]


@dataclass(frozen=True)
class Go:
    """One time that the session, or one of its purpose, was done."""

    finished: bool
    """All efforts were done."""
    rpe: float
    expected_rpe: float
    fade: float | None = None
    """Of the strikes, from the first to the last third; None where nobody counted."""
    pain: tuple[str, ...] = ()
    """Where it hurt, in words."""


@dataclass(frozen=True)
class NextTime:
    """What to do with the session the next time."""

    step: Step
    name: str
    """The knob as it is turned; empty where nothing is."""
    reason: str
    session: Session
    changes: tuple[Change, ...] = ()
    """What it should do to the purpose's measures, and to the rating."""
    spare: tuple[str, ...] = ()
    """What hurts and is left out."""


def knobs(target_id: str) -> tuple[Knob, ...]:
    return ORDER.get(target_id, _REST_FIRST)


def _bound(target_id: str) -> float:
    return fade_bound(TARGETS[target_id])


def too_hard(go: Go) -> bool:
    return not go.finished or go.rpe >= go.expected_rpe + TOO_HARD


def clean(go: Go, target_id: str) -> bool:
    """All efforts done, the fade within the purpose's bound, no harder than expected. A fade that nobody counted does
    not speak against it."""
    faded = go.fade is not None and go.fade > _bound(target_id)
    return go.finished and not faded and go.rpe <= round(go.expected_rpe)


def step_of(goes: Sequence[Go], target_id: str) -> tuple[Step, str]:
    """Which way, and why; `goes` in the order of their days, at least one. Raises `ValueError` for none."""
    if not goes:
        raise ValueError("nothing was done yet")
    last, before = goes[-1], goes[:-1][-1:]
    if last.pain:
        return "hold", f"It hurt: {', '.join(last.pain)}. Leave that limb out, and change nothing else."
    if too_hard(last):
        why = "was not finished" if not last.finished else f"was rated {last.rpe:g}, {last.expected_rpe:.0f} expected"
        if before and too_hard(before[0]):
            return "back", f"Twice in a row it was too hard; the last time it {why}."
        return "hold", f"The last time it {why}. Once more as it is."
    row = 0
    for go in reversed(goes):
        if not clean(go, target_id) or go.pain:
            break
        row += 1
    if row < CLEAN_IN_A_ROW:
        if row:
            return "hold", "One clean go. After one more a knob is turned."
        return "hold", f"{_not_clean(last, target_id)} Once more as it is."
    counted = [go.fade for go in goes[-CLEAN_IN_A_ROW:] if go.fade is not None]
    fade = f"fade {say(max(0.0, *counted), 'percent')}" if counted else "nobody counted the fade"
    return "on", f"{row if row < 10 else 'Many'} clean goes: all efforts done, {fade}, no harder than expected."


def _not_clean(go: Go, target_id: str) -> str:
    if go.fade is not None and go.fade > _bound(target_id):
        return f"It faded by {100 * go.fade:.0f} %, over the {100 * _bound(target_id):.0f} % of its purpose."
    return f"It was rated {go.rpe:g}, {go.expected_rpe:.0f} expected."


@dataclass(frozen=True)
class Notch:
    """A knob turned by one notch: the best of the turns that keep the purpose."""

    name: str
    session: Session
    reading: Reading


def notch(judge: Judge, session: Session, knob: Knob, *, harder: bool) -> Notch | None:
    """The session with a knob turned, harder or easier, the best of the ways to do it.

    None where there is no way; harder, where none trains the purpose as well as before, and is stopped by nothing.
    """
    before = judge.read(session)
    if before is None:
        return None
    strokes = judge.verdict(before, judge.spoken(before)).strokes
    best: tuple[float, Notch] | None = None
    for turn, changed in _turned(session, knob, harder):
        after = judge.read(changed)
        if after is None:
            continue
        spoken = judge.spoken(after)
        verdict = judge.verdict(after, spoken)
        if harder and (stops(spoken) or verdict.strokes < strokes):
            continue
        if best is None or verdict.score > best[0]:
            best = verdict.score, Notch(turn.name, changed, after)
    return best[1] if best else None


def _turned(session: Session, knob: Knob, harder: bool) -> Iterator[tuple[Turn, Session]]:
    """Every notch of a knob, harder or easier."""
    up = UP[knob] if harder else not UP[knob]
    for turn, _part, changed in candidates(session, framed=False):
        if turn.knob == knob and turn.up == up:
            yield turn, changed


def next_time(
    person: Person,
    session: Session,
    target_id: str,
    goes: Sequence[Go],
    circumstances: Circumstances | None = None,
) -> NextTime:
    """What to do with a session next time, for its purpose. Raises `ValueError` where it was never done.

    The knob that comes first for the purpose is turned, if what results still trains it as well and nothing stops it.
    """
    step, reason = step_of(goes, target_id)
    spare = goes[-1].pain
    if step == "hold":
        return NextTime(step, "", reason, session, spare=spare)
    judge = Judge(person, target_id, circumstances or Circumstances(), None)
    before = judge.read(session)
    if before is None:
        return NextTime("hold", "", "There is no work in it yet.", session)
    for knob in knobs(target_id):
        turned = notch(judge, session, knob, harder=step == "on")
        if turned is not None:
            rated = (f"{each.figures['rpe'].value:.0f}" for each in (before, turned.reading))
            effort = Change("expected effort", *rated)
            moved = tuple(each for each in judge.changes(before, turned.reading) if each.before != each.after)
            return NextTime(step, turned.name, reason, turned.session, (*moved, effort))
    why = " No knob can be turned without leaving the purpose: choose another session of it." if step == "on" else ""
    return NextTime("hold", "", reason + why, session)
