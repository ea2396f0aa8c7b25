"""Proposals: the best protocol of a school for this person within the minutes, found by simulating its grid."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass

from yoisho.engine.person import Person
from yoisho.engine.readout import Reading, read
from yoisho.judgement.targets import TARGETS
from yoisho.judgement.verdict import measure_values, score
from yoisho.session.document import Part, Session
from yoisho.session.interval import Interval
from yoisho.session.rules import RULE_SETS
from yoisho.session.timeline import unroll
from yoisho.session.tree import Node, Repeat, Sequence, duration_s

SHORTEST_MINUTES = 4
LONGEST_MINUTES = 120


class ProposalError(ValueError):
    """Limits within which nothing can be proposed."""


@dataclass(frozen=True)
class Family:
    """A school's protocol with its grid. One entry here is all a new school needs."""

    id: str
    name: str
    target: str
    reason: str
    source: str
    grid: Callable[[Person], Iterator[Node]]
    """The candidates for a person."""


@dataclass(frozen=True)
class Proposal:
    family: Family
    session: Session
    score: float
    why: str


def _short_bursts(who: Person) -> Iterator[Node]:
    for work in (6, 8, 10):
        for ratio in (10, 12, 15, 20):
            for rounds in range(6, 19):
                yield Repeat(rounds, Interval(work, "all-out"), Interval(work * ratio, "rest"))


def _hard_and_light(who: Person) -> Iterator[Node]:
    for hard in ("power", "speed", "all-out"):
        for light in ("flow", "recover"):
            for rest in (90, 120, 180):
                for sets in (1, 2, 3):
                    for rounds in (6, 8, 10, 12):
                        pair = Sequence((Interval(30, hard), Interval(30, light)))
                        block = Repeat(rounds, pair)
                        yield block if sets == 1 else Repeat(sets, block, Interval(rest, "rest"))


def _long_intervals(who: Person) -> Iterator[Node]:
    for work in (120, 180, 240):
        for rest in (60, 120, 180):
            for rounds in range(3, 9):
                yield Repeat(rounds, Interval(work, "combination"), Interval(rest, "recover"))


def _bursts_again(who: Person) -> Iterator[Node]:
    for work in (8, 10, 12, 15):
        for ratio in (4, 5, 6, 8):
            for rounds in (8, 10, 12, 16):
                yield Repeat(rounds, Interval(work, "all-out"), Interval(work * ratio, "rest"))


def _long_rest(who: Person) -> Iterator[Node]:
    for work in (20, 25, 30, 40):
        for rest in (90, 120, 150, 180, 240):
            for rounds in range(3, 9):
                yield Repeat(rounds, Interval(work, "all-out"), Interval(rest, "rest"))


def _threshold_rounds(who: Person) -> Iterator[Node]:
    for tempo in ("freestyle", "combination"):
        for minutes in (3, 4, 5, 6, 8, 10):
            for rest in (60, 75, 90, 120):
                for rounds in range(2, 7):
                    yield Repeat(rounds, Interval(60 * minutes, tempo), Interval(rest, "rest"))


def _skill_rounds(who: Person) -> Iterator[Node]:
    for minutes in (2, 3):
        for rest in (60, 90):
            for rounds in range(3, 13):
                yield Repeat(rounds, Interval(60 * minutes, "technique"), Interval(rest, "rest"))


def _bout_rounds(who: Person) -> Iterator[Node]:
    """Rounds of the person's rule set in fight order: fast, then settled, finished with power."""
    rules = RULE_SETS[who.rule_set or "boxing-amateur"]
    for settled in ("technique", "freestyle", "combination"):
        third = rules.round_s // 3
        thirds = Interval(third, "speed"), Interval(rules.round_s - 2 * third, settled), Interval(third, "power")
        for more in (0, 1):
            yield Repeat(rules.rounds + more, Sequence(thirds), Interval(rules.rest_s, "rest"))


def _flow_base(who: Person) -> Iterator[Node]:
    for minutes in range(4, 61, 2):
        yield Interval(60 * minutes, "flow")


FAMILIES: tuple[Family, ...] = (
    Family(
        "short-bursts", "Short bursts, long rest", "sprint-power",
        "Bursts short enough to stay on the sprint store, and rest long enough to fill it again.",
        "NSCA Essentials 4th ed., 5-10 s at 1:12 to 1:20, from memory", _short_bursts,
    ),
    Family(
        "hard-and-light", "Thirty hard, thirty light", "lactic-capacity",
        "Half a minute hard, half a minute light on the bag, so that the lactic store stays down without the "
        "hands stopping.",
        "common practice, no source", _hard_and_light,
    ),
    Family(
        "long-intervals", "Long intervals", "aerobic-power",
        "Two to four minutes brisk, so that uptake climbs to its top and stays there.",
        "Buchheit and Laursen 2013, from memory", _long_intervals,
    ),
    Family(
        "bursts-again", "Bursts again and again", "sprint-capacity",
        "Bursts that empty the sprint store, and rest too short to fill it.", "common practice, no source",
        _bursts_again,
    ),
    Family(
        "long-rest", "All out, long rest", "lactic-power",
        "Half a minute all out opens the lactic store, and minutes of rest make the next one as good.",
        "NSCA Essentials 4th ed., 15-30 s at 1:3 to 1:5, from memory", _long_rest,
    ),
    Family(
        "threshold-rounds", "Long rounds, high but tolerated", "threshold",
        "Rounds long enough to settle at a pace that technique survives, with rests too short to come down.",
        "common practice, no source", _threshold_rounds,
    ),
    Family(
        "skill-rounds", "Skill rounds", "skill",
        "Clean work with time between, and rest before anything tires.", "common practice, no source", _skill_rounds,
    ),
    Family(
        "bout-rounds", "The bout's rounds", "bout-rehearsal",
        "The rounds and rests of the rule set, opened fast, settled, and finished hard.",
        "rule sets, from memory: check your federation's", _bout_rounds,
    ),
    Family(
        "flow-base", "Flow", "aerobic-base",
        "One long stretch that could be kept up while talking.", "common practice, no source", _flow_base,
    ),
)  # fmt: skip


def _around(main: Node, minutes: int) -> tuple[Part, ...]:
    """The main set with warm-up and cool-down, as far as the minutes leave room."""
    parts = [Part("Main set", main)]
    if minutes >= 12:
        warm_s = 300 if minutes < 30 else 600
        warm_up = Sequence((Interval(warm_s, "flow"), Interval(60, "rest")))
        parts.insert(0, Part("Warm-up", warm_up))
    if minutes >= 20:
        parts.append(Part("Cool-down", Interval(180, "recover")))
    return tuple(parts)


def propose(who: Person, target_id: str, minutes: int) -> Proposal:
    """The candidate that fits the purpose best within the minutes; of equals, the one that uses them best.

    Raises `ProposalError` where the minutes leave room for none, or no school serves the purpose.
    """
    if not SHORTEST_MINUTES <= minutes <= LONGEST_MINUTES:
        raise ProposalError(f"give from {SHORTEST_MINUTES} to {LONGEST_MINUTES} minutes, not {minutes}")
    target = TARGETS.get(target_id)
    if target is None:
        raise ProposalError(f"no purpose is called '{target_id}'; there are {', '.join(TARGETS)}")
    best: tuple[float, Family, tuple[Part, ...], Reading] | None = None
    for family in FAMILIES:
        if family.target != target.id:
            continue
        for main in family.grid(who):
            parts = _around(main, minutes)
            total_s = sum(duration_s(part.tree) for part in parts)
            if total_s > 60 * minutes:
                continue
            reading = read(who, unroll(*(part.tree for part in parts)), ranges=False)
            reached = round(score(target, measure_values(reading)), 3) + 1e-7 * total_s
            if best is None or reached > best[0]:
                best = reached, family, parts, reading
    if best is None:
        raise ProposalError(f"{minutes} minutes leave no room for {target.name}; give more, or choose another purpose")
    _, family, parts, reading = best
    total = reading.timeline.total_s
    why = f"{family.reason} The best of its grid for this person within {minutes}:00."
    title = f"{family.name}, {round(total / 60)} min"
    return Proposal(family, Session(title, parts), score(target, measure_values(reading)), why)
