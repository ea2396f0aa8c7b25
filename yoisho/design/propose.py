"""Proposals: the best protocols of different schools for this person within the limits, found by simulating them."""

from collections import Counter
from dataclasses import dataclass, field, replace
from functools import partial
from math import log1p
from operator import attrgetter

from yoisho.design.search import NOT_POSSIBLE, Search
from yoisho.design.tradeoffs import tradeoffs
from yoisho.engine.person import Level, Person
from yoisho.engine.readout import Reading, read
from yoisho.judgement.cautions import RULES, Caution, bars, cautions, stops
from yoisho.judgement.circumstances import Circumstances
from yoisho.judgement.targets import TARGETS
from yoisho.judgement.verdict import judge, measure_values, score
from yoisho.protocols.families import FAMILIES, Family, Knobs
from yoisho.protocols.frames import NO_SKIPPING_FROM_YEARS, cool_down, warm_up
from yoisho.session.document import Part, Session, unrolled
from yoisho.session.interval import Interval, SessionError
from yoisho.session.modality import MODALITIES
from yoisho.session.rules import RULE_SETS
from yoisho.session.timeline import unroll
from yoisho.session.tree import Node, Repeat, Sequence, duration_s
from yoisho.strikes.tempo import TEMPOS

SHORTEST_MINUTES = 4
LONGEST_MINUTES = 120
MOST_PROPOSALS = 5
LEAST_PROPOSALS = 3
WORTH_SHOWING = 0.45
"""Score from which a family is shown where better ones are few; the verdict's own limit of "part way"."""
SEEDS = 7
"""Settings tried of every family before the best families are searched on."""
SEARCHED_ON = 7
MOST_TRIED = 32
SAMPLE_S = 5.0
AT_HOME = 0.03
"""What a family is ahead by where it was made for the purpose."""


class ProposalError(ValueError):
    """Limits within which nothing can be proposed."""


@dataclass(frozen=True)
class Limits:
    minutes: int
    """All of it, warm-up and cool-down with it."""
    modality: str = "bag"
    """What strikes land on."""
    kit: frozenset[str] = field(default=frozenset(MODALITIES))
    """Modalities at hand."""
    kicks: bool = True
    most_strikes: int | None = None
    """In the whole session."""
    avoid: frozenset[str] = frozenset()
    """Efforts that must not come, such as power for a sore hand."""
    level: Level | None = None
    """Whose ceilings hold; None for the person's own."""
    rule_set: str | None = None
    """Whose rounds are rehearsed; None for the person's own."""

    def __post_init__(self) -> None:
        if not SHORTEST_MINUTES <= self.minutes <= LONGEST_MINUTES:
            raise ProposalError(f"give from {SHORTEST_MINUTES} to {LONGEST_MINUTES} minutes, not {self.minutes}")
        if self.modality not in MODALITIES or not MODALITIES[self.modality].strikes:
            raise ProposalError(f"strikes do not land on '{self.modality}'; say a bag, pads or shadow")
        if self.most_strikes is not None and self.most_strikes < 1:
            raise ProposalError("a ceiling of strikes is at least 1; leave it out for none")
        if unknown := self.avoid - set(TEMPOS):
            raise ProposalError(f"no effort is called '{min(unknown)}'; there are {', '.join(TEMPOS)}")
        if self.rule_set is not None and self.rule_set not in RULE_SETS:
            raise ProposalError(f"no rule set is called '{self.rule_set}'; there are {', '.join(RULE_SETS)}")

    def holding_for(self, person: Person) -> Person:
        """The person with the level and the rules that were asked for."""
        return replace(person, level=self.level or person.level, rule_set=self.rule_set or person.rule_set)


@dataclass(frozen=True)
class Proposal:
    family: Family
    session: Session
    score: float
    sureness: float | None
    """Share of people like this one for whom it is well aimed."""
    why: str
    reading: Reading
    tradeoff: str
    """What it costs and gains beside the others, in words."""


def _on(node: Node, modality: str) -> Node:
    """The work done on a modality, where nothing is said."""
    match node:
        case Interval():
            return replace(node, modality=modality) if node.kind == "work" and node.modality is None else node
        case Sequence():
            return Sequence(tuple(_on(item, modality) for item in node.items))
        case Repeat():
            return replace(node, body=_on(node.body, modality))


def _around(minutes: int, person: Person, kit: frozenset[str]) -> tuple[tuple[Part, ...], tuple[Part, ...]]:
    """What stands before and after the main set, by age and kit, as far as the minutes leave room."""
    before: tuple[Part, ...] = ()
    if minutes >= 12:
        half_s = 150 if minutes < 30 else 300
        skipping = "skip" in kit and person.age_years < NO_SKIPPING_FROM_YEARS
        before = (warm_up(half_s, half_s if skipping else 300, skipping=skipping),)
    return before, (cool_down(180),) if minutes >= 20 else ()


class _Bench:
    """Tries settings of families for one person, purpose and set of limits."""

    def __init__(self, person: Person, target_id: str, limits: Limits, circumstances: Circumstances):
        self.person, self.limits = person, limits
        self.target = TARGETS[target_id]
        self.circumstances = replace(circumstances, purpose=target_id)
        self.before, self.after = _around(limits.minutes, person, limits.kit)
        self.barred: Counter[str] = Counter()
        """How often each rule stood in the way, for what is said where nothing is left."""

    def parts(self, family: Family, knobs: Knobs) -> tuple[Part, ...]:
        main = _on(family.build(self.person, knobs), self.limits.modality)
        return (*self.before, Part("Main set", main, self.target.id), *self.after)

    def reading(self, parts: tuple[Part, ...], *, ranges: bool = False) -> Reading:
        timeline = unrolled(parts)
        return read(self.person, timeline, ranges=ranges, sample_s=1.0 if ranges else SAMPLE_S)

    def score(self, family: Family, knobs: Knobs, best: float) -> float:
        """Of a setting that is no better than the best so far it is not asked whether it may be done."""
        try:
            parts = self.parts(family, knobs)
            total_s = sum(duration_s(part.tree) for part in parts)
            if total_s > 60 * self.limits.minutes:
                return NOT_POSSIBLE
            reading = self.reading(parts)
        except SessionError:
            return NOT_POSSIBLE
        # Of equals, the one that uses the minutes better.
        used = log1p(total_s / (60 * self.limits.minutes))
        at_home = AT_HOME if self.target.id in family.home else 0.0
        found = score(self.target, measure_values(reading, self.target.id)) + 0.02 * used + at_home
        return found if found <= best or self.allowed(family, reading) else NOT_POSSIBLE

    def allowed(self, family: Family, reading: Reading) -> bool:
        if any(interval.tempo in self.limits.avoid for interval in reading.timeline.intervals):
            return False
        most = self.limits.most_strikes
        if most is not None and reading.figures["strikes"].value > most:
            return False
        given_out = reading.figures["fade_last"].value > GIVEN_OUT_FADE
        if given_out and not family.to_exhaustion:
            return False
        barring = [caution.rule for caution in cautions(reading, self.circumstances) if bars(caution)]
        self.barred.update(barring)
        return not barring


GIVEN_OUT_FADE = 0.35
"""A session whose last effort falls short by more than this cannot be finished as asked."""


def against_any(person: Person, circumstances: Circumstances) -> tuple[Caution, ...]:
    """The stops that stand against any training, however easy."""
    easiest = read(person, unroll(Interval(60 * SHORTEST_MINUTES, "flow", modality="footwork")), ranges=False)
    return stops(cautions(easiest, circumstances))


def _stands(bench: _Bench) -> None:
    """Raises `ProposalError` where a stop stands against any training, however easy."""
    for caution in against_any(bench.person, bench.circumstances):
        raise ProposalError(f"nothing is proposed: {caution.text} {caution.cure}")


def propose_all(
    person: Person, target_id: str, limits: Limits, circumstances: Circumstances | None = None
) -> tuple[Proposal, ...]:
    """Three to five protocols of different families, the best first; fewer where the limits leave no more.

    None calls up a stop, nor a caution that leaving something out would answer. Raises `ProposalError` where that and
    the limits leave room for none.
    """
    if target_id not in TARGETS:
        raise ProposalError(f"no purpose is called '{target_id}'; there are {', '.join(TARGETS)}")
    bench = _Bench(limits.holding_for(person), target_id, limits, circumstances or Circumstances(of_somebody=False))
    _stands(bench)
    searches = [
        Search(family, partial(bench.score, family))
        for family in FAMILIES
        if family.needs <= limits.kit and (limits.kicks or not family.kicks)
    ]
    for search in searches:
        search.spread(SEEDS)
    searches = sorted((each for each in searches if each.best), key=attrgetter("best_score"), reverse=True)
    for search in searches[:SEARCHED_ON]:
        search.climb(MOST_TRIED)
    searches.sort(key=attrgetter("best_score"), reverse=True)
    if not searches or searches[0].best_score < WORTH_SHOWING:
        raise ProposalError(_no_room(bench))
    chosen = [each for each in searches if each.best_score >= WORTH_SHOWING][:MOST_PROPOSALS]
    if len(chosen) < LEAST_PROPOSALS:
        chosen = searches[:LEAST_PROPOSALS]
    # The surest first, by tenths; of equally sure ones the better.
    found = sorted(
        (_proposal(bench, search) for search in chosen),
        key=lambda each: (round(10 * (each.sureness or 0.0)), each.score),
        reverse=True,
    )
    told = tradeoffs([each.reading for each in found])
    return tuple(replace(each, tradeoff=words) for each, words in zip(found, told, strict=True))


def at_home(person: Person, target_id: str, limits: Limits, circumstances: Circumstances | None = None) -> Session:
    """The best session of the families that were made for a purpose: one proposal, sooner than all of them.

    Raises `ProposalError` where the limits leave no room for any.
    """
    bench = _Bench(limits.holding_for(person), target_id, limits, circumstances or Circumstances(of_somebody=False))
    _stands(bench)
    best: Search | None = None
    for family in FAMILIES:
        if target_id not in family.home or not family.needs <= limits.kit or (family.kicks and not limits.kicks):
            continue
        search = Search(family, partial(bench.score, family))
        search.spread(SEEDS)
        search.climb(MOST_TRIED)
        if best is None or search.best_score > best.best_score:
            best = search
    if best is None or best.best_score < WORTH_SHOWING:
        return propose_all(person, target_id, limits, circumstances)[0].session
    assert best.best is not None
    return Session(best.family.name, bench.parts(best.family, best.knobs(best.best)))


def _no_room(bench: _Bench) -> str:
    said = f"{bench.limits.minutes} minutes and these limits leave no room for {bench.target.name}"
    if not bench.barred:
        return f"{said}; give more minutes or strikes, or choose another purpose"
    about = {rule.id: rule.about for rule in RULES}
    weightiest = " ".join(about[rule] for rule, _ in bench.barred.most_common(2))
    return f"{said}, with what holds for this person. {weightiest} Give more minutes, or choose another purpose"


def _proposal(bench: _Bench, search: Search) -> Proposal:
    assert search.best is not None
    family = search.family
    knobs = search.knobs(search.best)
    parts = bench.parts(family, knobs)
    reading = bench.reading(parts, ranges=True)
    title = f"{family.name}, {round(reading.timeline.total_s / 60)} min"
    verdict = judge(reading, bench.target.id, cautions(reading, bench.circumstances))
    reason = family.reason.format(**knobs)
    return Proposal(family, Session(title, parts), verdict.score, verdict.sureness, reason, reading, "")
