"""A session for somebody else, or under other rules, with the effect it had: the changes that come nearest to it.

The effect is what the session does to its person by the model; how far two effects are apart is counted in differences
that matter (own settings).
"""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from math import inf, sqrt
from operator import itemgetter

from yoisho.design.nudge import TooLargeError, candidates, searchable, simulated
from yoisho.design.propose import against_any
from yoisho.design.rounds import STEP_S, Place, keeps_rules, places, to_rules
from yoisho.engine.measures import LACTIC_DEEP
from yoisho.engine.person import Person
from yoisho.engine.readout import Reading, read
from yoisho.judgement.cautions import CURABLE, Caution, bars, cautions, stops
from yoisho.judgement.circumstances import Circumstances
from yoisho.judgement.targets import Unit
from yoisho.judgement.verdict import say
from yoisho.session.document import Session
from yoisho.session.interval import Interval, SessionError
from yoisho.session.purposes import FRAMES
from yoisho.session.rules import RULE_SETS
from yoisho.session.tree import Node, Repeat, Sequence
from yoisho.strikes.tempo import LADDER, TEMPOS

MOST_STEPS = 4
BEAM = 1
STEP_COST = 0.03
"""What a change must gain at least, in distance: fewer changes are better."""
CAUTION_COST, BARRING_COST, STOP_COST = 0.6, 5.0, 50.0
"""What a caution weighs that a change could answer; one that nothing offered may call up; a stop."""
LESS_COST = 4.0
"""What the strikes and the load weigh meanwhile, each as a share of what they were."""
MOST_MENDING_STEPS = 10
"""Steps where something still speaks that nothing offered may call up."""
SAME = 0.5
"""Distance under which an effect is told as kept."""


class ScaleError(ValueError):
    """A session that cannot be scaled or converted: why."""


@dataclass(frozen=True)
class Aim:
    """One figure of the effect."""

    figure: str
    label: str
    unit: Unit
    matters: float
    """A difference of this much counts as one."""
    matters_frac: float = 0.0
    """Or of this share of what it was, if that is more."""


EFFECT = (
    Aim("lactic_deep_min", f"lactic store {LACTIC_DEEP}", "minutes", 1.0, 0.25),
    Aim("lactic_reserve_lowest", "lactic store at its lowest", "percent", 0.10),
    Aim("sprint_at_start", "sprint store as efforts start", "percent", 0.10),
    Aim("vo2_90_min", "above 90 % of VO2peak", "minutes", 1.0, 0.25),
    Aim("aerobic_share", "aerobic share", "percent", 0.08),
    Aim("fade_mean", "fade over the efforts", "percent", 0.05),
    Aim("load", "load, RPE x minutes", "count", 20.0, 0.2),
)


@dataclass(frozen=True)
class Kept:
    """One figure of the effect, before and after."""

    name: str
    before: str
    after: str
    kept: bool


@dataclass(frozen=True)
class Scaled:
    session: Session
    steps: tuple[str, ...]
    """The changes, in the order they were made; none where it fits as it is."""
    effect: tuple[Kept, ...]
    distance: float
    """Mean distance of the effects, in differences that matter."""
    reading: Reading

    @property
    def same(self) -> bool:
        return self.distance < SAME


def _apart(aim: Aim, before: Reading, after: Reading) -> float:
    was, now = before.figures[aim.figure].value, after.figures[aim.figure].value
    return abs(now - was) / max(aim.matters, aim.matters_frac * abs(was))


def distance(before: Reading, after: Reading) -> float:
    """How far the effects are apart, in differences that matter (root mean square)."""
    return sqrt(sum(_apart(aim, before, after) ** 2 for aim in EFFECT) / len(EFFECT))


def _effect(before: Reading, after: Reading) -> tuple[Kept, ...]:
    return tuple(
        Kept(
            aim.label,
            say(before.figures[aim.figure].value, aim.unit),
            say(after.figures[aim.figure].value, aim.unit),
            _apart(aim, before, after) < 1,
        )
        for aim in EFFECT
    )


def _original(person: Person, session: Session) -> Reading:
    try:
        searchable(session)
    except TooLargeError as error:
        raise ScaleError(str(error)) from error
    found = simulated(person, session)
    if found is None:
        raise ScaleError("there is no effort in this session yet, so it has no effect to keep")
    return found


def _weight(caution: Caution) -> float:
    if caution.severity == "stop":
        return STOP_COST
    if bars(caution):
        return BARRING_COST
    return CAUTION_COST if caution.severity != "note" and caution.rule in CURABLE else 0.0


def softened(session: Session) -> Iterator[tuple[str, Session]]:
    """The session with no work harder than a rung of the ladder, and with half the rounds; the big steps that a small
    change at a time would not reach."""
    for tempo in LADDER[:-1]:
        parts = tuple(replace(part, tree=_at_most(part.tree, tempo)) for part in session.parts)
        yield f"{TEMPOS[tempo].word} instead of all that is harder", replace(session, parts=parts)
    for index, part in enumerate(session.parts):
        tree = part.tree
        if part.purpose not in FRAMES and isinstance(tree, Repeat) and tree.count > 1:
            half = replace(part, tree=replace(tree, count=tree.count // 2))
            parts = (*session.parts[:index], half, *session.parts[index + 1 :])
            yield f"half the {'sets' if isinstance(tree.body, Repeat) else 'rounds'}", replace(session, parts=parts)


def _at_most(node: Node, tempo: str) -> Node:
    match node:
        case Interval():
            harder = node.kind == "work" and node.demand_frac > TEMPOS[tempo].demand_frac
            return Interval(**{**vars(node), **_PLAIN, "tempo": tempo}) if harder else node
        case Sequence():
            return Sequence(tuple(_at_most(item, tempo) for item in node.items))
        case Repeat():
            return replace(node, body=_at_most(node.body, tempo))


_PLAIN = {"per_min": None, "power_percent": None, "demand_percent": None}
"""What would say another effort than the word."""


def _refuse(standing: tuple[Caution, ...]) -> None:
    for caution in standing:
        raise ScaleError(f"not for this person: {caution.text} {caution.cure.rstrip('.')}")


_Step = tuple[float, tuple[str, ...], Session]


class _Search:
    """From a session to the one whose effect on somebody comes nearest to the original's."""

    def __init__(self, aim: Reading, person: Person, circumstances: Circumstances):
        self.aim, self.person, self.circumstances = aim, person, circumstances

    def cost(self, session: Session, less_than: float = inf) -> float | None:
        """None where it cannot be done, or costs no less."""
        reading = simulated(self.person, session)
        if reading is None:
            return None
        apart = distance(self.aim, reading)
        if apart >= less_than:
            return None  # what speaks against it would only be added
        spoken = cautions(reading, self.circumstances)
        # Where something speaks that may not, less of everything is the way out, even before it falls silent.
        much = sum(reading.figures[name].value / max(1.0, self.aim.figures[name].value) for name in ("strikes", "load"))
        return apart + sum(map(_weight, spoken)) + (LESS_COST * much if any(map(bars, spoken)) else 0.0)

    def changes(self, session: Session) -> Iterator[tuple[str, Session]]:
        for turn, _part, changed in candidates(session, framed=False):
            yield turn.name, changed
        yield from softened(session)

    def run(self, session: Session) -> Scaled:
        """Raises `ScaleError` where not even the session as it is can be done, and where a stop stands in the end: what
        stands against any training is told before anything is looked for."""
        _refuse(against_any(self.person, self.circumstances))
        start = self.cost(session)
        if start is None:
            raise ScaleError("this session cannot be done as it is; shorten it first")
        best: _Step = (start, (), session)
        beam = [best]
        seen = {session.parts}
        for made in range(MOST_MENDING_STEPS):
            if made >= MOST_STEPS and best[0] < BARRING_COST:
                break
            following: list[_Step] = []
            for _cost, steps, at in beam:
                for name, changed in self.changes(at):
                    if changed.parts in seen:
                        continue
                    seen.add(changed.parts)
                    cost = self.cost(changed, following[-1][0] if len(following) == BEAM else inf)
                    if cost is not None:
                        following = sorted([*following, (cost, (*steps, name), changed)], key=itemgetter(0))[:BEAM]
            beam = following
            least = STEP_COST if best[0] < BARRING_COST else 0.0
            if not beam or beam[0][0] >= best[0] - least:
                break
            best = beam[0]
        reading = read(self.person, best[2].unrolled())
        _refuse(stops(cautions(reading, self.circumstances)))
        return Scaled(best[2], best[1], _effect(self.aim, reading), distance(self.aim, reading), reading)


class _UnderRules(_Search):
    """The same, where rounds and rests are the rules'."""

    def __init__(
        self, aim: Reading, person: Person, circumstances: Circumstances, rules_id: str, found: tuple[Place, ...]
    ):
        super().__init__(aim, person, circumstances)
        self.rules, self.found = RULE_SETS[rules_id], found

    def changes(self, session: Session) -> Iterator[tuple[str, Session]]:
        offered = [*super().changes(session), *_trades(session)]
        return ((name, changed) for name, changed in offered if keeps_rules(changed, self.found, self.rules))


def _traded(node: Node) -> Iterator[Node]:
    """Seconds moved from one effort to another of the same round."""
    match node:
        case Sequence():
            for give, giver in enumerate(node.items):
                for take, taker in enumerate(node.items):
                    if give == take or not isinstance(giver, Interval) or not isinstance(taker, Interval):
                        continue
                    if giver.seconds is None or taker.seconds is None or giver.seconds <= STEP_S:
                        continue
                    items = list(node.items)
                    items[give] = replace(giver, seconds=giver.seconds - STEP_S)
                    items[take] = replace(taker, seconds=taker.seconds + STEP_S)
                    yield Sequence(tuple(items))
            for index, item in enumerate(node.items):
                for changed in _traded(item):
                    yield Sequence((*node.items[:index], changed, *node.items[index + 1 :]))
        case Repeat():
            for changed in _traded(node.body):
                yield replace(node, body=changed)
        case _:
            return


def _trades(session: Session) -> Iterator[tuple[str, Session]]:
    for index, part in enumerate(session.parts):
        for tree in _traded(part.tree):
            parts = (*session.parts[:index], replace(part, tree=tree), *session.parts[index + 1 :])
            yield "0:05 moved inside the round", replace(session, parts=parts)


def scale(session: Session, person: Person, to: Person, circumstances: Circumstances | None = None) -> Scaled:
    """The session changed as little as brings its effect on `to` near to that on `who`.

    Raises `ScaleError` where it has no effort, or cannot be done.
    """
    return _Search(_original(person, session), to, circumstances or Circumstances()).run(session)


def convert(session: Session, person: Person, rules_id: str, circumstances: Circumstances | None = None) -> Scaled:
    """The session in the rounds and rests of a rule set, with an effect on `who` near to its own.

    Raises `ScaleError` for no such rules, for a session without rounds, and as `scale` does.
    """
    if rules_id not in RULE_SETS:
        raise ScaleError(f"no rule set is called '{rules_id}'; there are {', '.join(RULE_SETS)}")
    aim = _original(person, session)
    try:
        shaped = to_rules(session, RULE_SETS[rules_id])
    except SessionError as error:
        raise ScaleError(str(error)) from error
    return _UnderRules(aim, person, circumstances or Circumstances(), rules_id, places(shaped)).run(shaped)


def three_of(people: list[Person]) -> dict[str, int]:
    """Whom to scale a group's session for: the weakest, the middle and the strongest, as indices; all where they are
    fewer than three. Told by what each can deliver: VO2max times anaerobic capacity (own setting)."""

    def capacity(index: int) -> float:
        return people[index].vo2max_ml_kg_min.value * people[index].anaerobic_scale.value

    order = sorted(range(len(people)), key=capacity)
    if len(order) == 1:
        return {"": order[0]}
    ends = {"weakest": order[0], "strongest": order[-1]}
    if len(order) == 2:
        return ends
    return {"weakest": order[0], "middle": order[len(order) // 2], "strongest": order[-1]}
