"""What stands to choose from: of each purpose a session, its knobs turned step by step, and what each should cost."""

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, replace
from math import ceil

from yoisho.camp.camp import DEFAULT_MINUTES, SPARRING, TEST, Camp
from yoisho.camp.plan import SIZES, Barred, Cost, Size
from yoisho.camp.weights import weights_of
from yoisho.design.nudge import Judge, Knob
from yoisho.design.propose import Limits, ProposalError, against_any, at_home
from yoisho.engine.person import Person
from yoisho.engine.readout import Reading, try_reading
from yoisho.judgement.cautions import BARRING, Caution, bars, cautions, is_lactic
from yoisho.judgement.circumstances import Circumstances
from yoisho.judgement.targets import TARGETS
from yoisho.protocols.frames import cool_down, warm_up
from yoisho.review.load import session_load
from yoisho.review.progression import knobs, notch
from yoisho.session.clock import clock
from yoisho.session.document import Part, Session, unrolled
from yoisho.session.interval import Interval
from yoisho.session.purposes import FRAMES
from yoisho.session.rules import RULE_SETS
from yoisho.session.shorthand import write
from yoisho.session.tree import Node, Repeat, Sequence, duration_s, sequence
from yoisho.session.volume import total
from yoisho.strikes.bags import lands_on

HARD_RPE = 7.0
"""Expected rating from which a session makes a hard day. Own setting."""
NOTCHES: dict[Knob, int] = {"rest": 2, "rounds": 2, "work": 1}
"""How often a knob is turned before the next one is: rest 90, 75, 60, then rounds, then work."""
SHORTENED = 0.85
"""Of a day's minutes, that a session begins with: turned knobs need room. Own setting."""
MINUTES_LEAST = 15
LACTIC = ("lactic-power", "lactic-capacity")
"""Purposes that make a lactic day, however few their rounds."""


@dataclass(frozen=True)
class Step:
    """A session with its knobs turned so far, in each size."""

    name: str
    """The last turn, such as "0:15 less rest between"; empty for the first."""
    knob: Knob | None
    words: str
    """How the knobs stand, such as "5 × 3:00, rest 1:15"."""
    rounds: int
    round_s: int
    rest_s: int
    sessions: dict[Size, Session]
    costs: dict[Size, Cost]


@dataclass(frozen=True)
class Ladder:
    purpose: str
    name: str
    steps: tuple[Step, ...]


class Circumstance:
    """What holds for somebody through the whole camp: their screening, knocks and limits, not the day's bout or log."""

    def __init__(self, person: Person, around: Circumstances):
        self.person = person
        self.limits = around.limits
        self.around = replace(
            around, days_to_fight=None, hours_since_lactic=None, wbgt_c=None, niggles=(), limits=(),
            strikes_this_week={}, today=None,
        )  # fmt: skip

    def judge(self, purpose: str) -> Judge:
        return Judge(self.person, purpose, replace(self.around, limits=self.limits), None)

    def spoken(self, reading: Reading, purpose: str) -> tuple[Caution, ...]:
        return cautions(reading, replace(self.around, purpose=purpose if purpose in TARGETS else None))

    def barred(self, reading: Reading, purpose: str, accepted: frozenset[str] | None) -> tuple[Barred, ...]:
        """Why a session may not be planned.

        `accepted` are the rules that its first step calls up as it is: a coach who likes it knows of them. With None
        only stops, the screening and limits bar.
        """
        known = accepted if accepted is not None else BARRING
        found = [
            Barred(BARRED_BY.get(each.rule, "cautions"), each.text)
            for each in self.spoken(reading, purpose)
            if bars(each) and (each.severity == "stop" or each.rule in BARRED_BY or each.rule not in known)
        ]
        for limit in self.limits:
            breach = limit.breach(reading, {})
            if breach is not None:
                found.append(Barred("limits", f"{limit.words}, by {limit.set_by}: {breach.text}", limit.until))
        return tuple(found)


BARRED_BY = {"concussion": "knock", "screening": "screening"}
"""Which rule of the camp a caution speaks through."""


def cost_of(session: Session, around: Circumstance, purpose: str, accepted: frozenset[str] | None = None) -> Cost:
    """What it costs whoever the circumstances are of, by the best guess. A session without work costs nothing."""
    timeline = unrolled(session.parts)
    reading = try_reading(around.person, timeline)
    if reading is None:
        return Cost(0, 0.0, timeline.total_s, {}, {}, lactic=False, hard=False)
    rpe = reading.figures["rpe"].value
    landed = total(
        volume
        for interval, volume in zip(timeline.intervals, reading.volumes, strict=True)
        if lands_on(interval.source.modality)
    )
    lactic = is_lactic(reading) or purpose in LACTIC
    return Cost(
        load=round(session_load(rpe, timeline.total_s)),
        rpe=round(rpe, 1),
        total_s=timeline.total_s,
        limbs={limb: round(n) for limb, n in reading.volume.limbs.items()},
        landed={limb: round(n) for limb, n in landed.limbs.items()},
        lactic=lactic,
        hard=lactic or rpe >= HARD_RPE,
        barred=around.barred(reading, purpose, accepted),
    )


# Sizes


def resized(session: Session, size: Size) -> Session:
    """The same with fewer rounds in its main parts."""
    share = SIZES[size]
    if share == 1.0:
        return session
    parts = tuple(
        part if part.purpose in FRAMES else replace(part, tree=_shorter(part.tree, share)) for part in session.parts
    )
    return replace(session, parts=parts)


def _shorter(node: Node, share: float) -> Node:
    match node:
        case Repeat() if node.count > 1:
            return replace(node, count=max(1, int(node.count * share + 1e-9)))
        case Repeat():
            return replace(node, body=_shorter(node.body, share))
        case Sequence():
            return Sequence(tuple(_shorter(item, share) for item in node.items))
        case Interval():
            if node.seconds is None:
                return replace(node, reps=tuple(max(1, ceil(reps * share)) for reps in node.reps))
            step = 1 if node.seconds < 15 else 5 if node.seconds < 120 else 30
            return replace(node, seconds=max(step, step * round(node.seconds * share / step)))


# How the knobs stand


def _repeats(node: Node) -> Iterator[Repeat]:
    match node:
        case Repeat():
            yield node
            yield from _repeats(node.body)
        case Sequence():
            for item in node.items:
                yield from _repeats(item)


def _rest_s(node: Node) -> int:
    """Rest and recovery inside a body, once through."""
    match node:
        case Interval():
            return 0 if node.kind == "work" else duration_s(node)
        case Sequence():
            return sum(_rest_s(item) for item in node.items)
        case Repeat():
            between = duration_s(node.between) if node.between else 0
            return node.count * _rest_s(node.body) + (node.count - 1) * between


def standing(session: Session) -> tuple[int, int, int]:
    """Rounds, work of a round [s] and rest between rounds [s] of the longest main part."""
    main = max((part.tree for part in session.parts if part.purpose not in FRAMES), key=duration_s, default=None)
    if main is None:
        return 0, 0, 0
    repeat = next((each for each in _repeats(main) if each.count > 1), None)
    if repeat is None:
        return 1, duration_s(main) - _rest_s(main), 0
    inside = _rest_s(repeat.body)
    if repeat.between is not None:
        return repeat.count, duration_s(repeat.body), duration_s(repeat.between)
    return repeat.count, duration_s(repeat.body) - inside, inside


def words_of(session: Session) -> str:
    """How its knobs stand, such as "5 × 3:00, rest 1:15"."""
    rounds, round_s, rest_s = standing(session)
    body = f"{rounds} × {clock(round_s)}" if rounds > 1 else clock(round_s)
    return f"{body}, rest {clock(rest_s)}" if rest_s else body


def text_of(session: Session) -> str:
    """All of it as one line of shorthand."""
    return write(sequence([part.tree for part in session.parts]))


# Ladders


def _step(
    session: Session, name: str, knob: Knob | None, around: Circumstance, purpose: str, accepted: frozenset[str] | None
) -> Step:
    rounds, round_s, rest_s = standing(session)
    sessions: dict[Size, Session] = {size: resized(session, size) for size in SIZES}
    costs = {size: cost_of(each, around, purpose, accepted) for size, each in sessions.items()}
    return Step(name, knob, words_of(session), rounds, round_s, rest_s, sessions, costs)


def ladder(base: Session, purpose: str, around: Circumstance, minutes: int) -> Ladder:
    """A session and its knobs turned one notch after the other, as long as it trains its purpose as well as it did."""
    judge, session = around.judge(purpose), base
    reading = judge.read(base)
    accepted = frozenset(each.rule for each in around.spoken(reading, purpose)) if reading else frozenset()
    steps = [_step(base, "", None, around, purpose, accepted)]
    for knob in knobs(purpose):
        for _ in range(NOTCHES.get(knob, 0)):
            turned = notch(judge, session, knob, harder=True)
            if turned is None or turned.session.total_s > 60 * minutes:
                break
            session = turned.session
            steps.append(_step(session, turned.name, knob, around, purpose, accepted))
    return Ladder(purpose, base.title, tuple(steps))


def _framed(main: Node, purpose: str | None, title: str) -> Session:
    return Session(title, (warm_up(360, 240), Part(title, main, purpose), cool_down(180, 120)))


def sparring(rule_set: str | None) -> Session:
    """The rounds of the rule set with a partner; three of 3:00 where there is none."""
    rules = RULE_SETS.get(rule_set or "")
    rounds, round_s, rest_s = (rules.rounds, rules.round_s, rules.rest_s) if rules else (3, 180, 60)
    main = Repeat(max(2, rounds), Interval(round_s, "freestyle", modality="partner"), Interval(rest_s, "rest"))
    return _framed(main, None, "Sparring")


def test_day() -> Session:
    """The strike test: 10 s, 30 s and 3:00 all out, with rest between."""
    parts: list[Node] = [
        Interval(10, "all-out"), Interval(180, "rest"), Interval(30, "all-out"), Interval(300, "rest"),
        Interval(180, "all-out"),
    ]  # fmt: skip
    return _framed(sequence(parts), None, "Strike test")


def _besides(session: Session, purpose: str, around: Circumstance) -> Ladder:
    """Of what has no knob: it stands as it is, in fewer rounds where the week is eased."""
    return Ladder(purpose, session.title, (_step(session, "", None, around, purpose, None),))


@dataclass(frozen=True)
class Choices:
    ladders: dict[str, Ladder]
    """By purpose, and sparring and the test day."""
    without: dict[str, str]
    """Purposes that nothing can be found for, and why."""


def choices(
    camp: Camp,
    person: Person,
    around: Circumstances | None = None,
    bases: Mapping[str, Session] | None = None,
    kit: frozenset[str] | None = None,
    told: Callable[[float], None] | None = None,
) -> Choices:
    """What can be planned for somebody: the sessions they like, else what is proposed, each simulated once.

    `told` hears how much of it is there, from 0 to 1.
    """
    held = Circumstance(person, around or Circumstances(of_somebody=False))
    minutes = max((camp.minutes.get(day, DEFAULT_MINUTES) for day in camp.days), default=DEFAULT_MINUTES)
    found: dict[str, Ladder] = {}
    without: dict[str, str] = {}
    wanted = dict.fromkeys((*weights_of(camp), *(purpose for _, purpose in camp.fixtures if purpose in TARGETS)))
    for number, purpose in enumerate(wanted):
        if told is not None:
            told(number / len(wanted))
        base = (bases or {}).get(purpose)
        try:
            base = base or _proposed(camp, person, purpose, held, minutes, kit)
        except ProposalError as error:
            without[purpose] = str(error)
            continue
        found[purpose] = ladder(base, purpose, held, minutes)
    if any(purpose == SPARRING for _, purpose in camp.fixtures):
        found[SPARRING] = _besides(sparring(camp.rule_set), SPARRING, held)
    if any(purpose == TEST for _, purpose in camp.fixtures):
        found[TEST] = _besides(test_day(), TEST, held)
    return Choices(found, without)


def _proposed(
    camp: Camp, person: Person, purpose: str, around: Circumstance, minutes: int, kit: frozenset[str] | None
) -> Session:
    asked = Limits(max(MINUTES_LEAST, round(SHORTENED * minutes)), rule_set=camp.rule_set)
    asked = replace(asked, kit=kit) if kit is not None else asked
    easy = replace(around.around, limits=around.limits)
    try:
        return at_home(person, purpose, asked, easy)
    except ProposalError:
        # What stands in the way may be lifted before the bout: the plan says what bars it, and until when.
        if not around.limits and not against_any(around.person, around.around):
            raise
        return at_home(person, purpose, asked, Circumstances(of_somebody=False))
