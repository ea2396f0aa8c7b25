"""What the Bench has worked out: encoded answers, a few at a time, and what was asked lately is not worked out again.

Every answer follows from its arguments alone, so the same question, whoever asks it, has the same answer.
"""

from collections.abc import Callable
from dataclasses import asdict, dataclass
from functools import lru_cache
from typing import ParamSpec, cast

import msgspec

from server.bench import schemas
from server.bounded import computes
from yoisho.answers.columns import proposal_column, scaled_column
from yoisho.answers.evaluation import evaluate
from yoisho.design.nudge import make_it_so, nudges
from yoisho.design.propose import Limits, propose_all
from yoisho.design.scale import Scaled, ScaleError, convert, scale, three_of
from yoisho.engine.person import Person
from yoisho.engine.readout import read
from yoisho.judgement import claims
from yoisho.judgement.circumstances import Circumstances
from yoisho.session.document import Session, to_document

P = ParamSpec("P")
REMEMBERED = 200
"""Answers of each kind that a process keeps: at up to a tenth of a megabyte each, about twenty megabytes a kind."""


def remembered(
    work: Callable[P, object], in_turn: Callable[[Callable[P, bytes]], Callable[P, bytes]] = computes
) -> Callable[P, bytes]:
    """The answer as it is sent, worked out in turn; one that was given lately comes at once. Faults are not kept."""

    @in_turn
    def encoded(*asked: P.args, **named: P.kwargs) -> bytes:
        return msgspec.json.encode(work(*asked, **named))

    return cast(Callable[P, bytes], lru_cache(REMEMBERED)(encoded))


def _best_guess(session: Session, person: Person, target: str, circumstances: Circumstances, school: str) -> object:
    return evaluate(session, person, target, circumstances, school, ranges=False)


best_guess = remembered(_best_guess, computes.short)


@remembered
def with_ranges(session: Session, person: Person, target: str, circumstances: Circumstances, school: str) -> object:
    return evaluate(session, person, target, circumstances, school)


@remembered
def claim(
    session: Session, person: Person, circumstances: Circumstances, kcal: float | None, trains: str | None, tabata: bool
) -> object:
    """A claim that is made for the session, held against the numbers."""
    reading = read(person, session.unrolled())
    if kcal is not None:
        return claims.kcal(reading, kcal)
    if trains is not None:
        return claims.trains(reading, trains, circumstances)
    if tabata:
        return claims.tabata(reading)
    raise claims.ClaimError("say what is claimed: so many kcal, Tabata, or a purpose")


@remembered
def proposals(person: Person, target: str, limits: Limits, school: str, circumstances: Circumstances) -> object:
    columns = [
        proposal_column(each, target, school, circumstances)
        for each in propose_all(person, target, limits, circumstances)
    ]
    return schemas.ProposeOut([schemas.ProposalOut(**vars(each)) for each in columns])


@dataclass(frozen=True)
class Other:
    """Somebody whom a session is worked out anew for."""

    person_id: int | None
    name: str
    person: Person
    circumstances: Circumstances

    def column(self, found: Scaled, target: str, school: str, role: schemas.Role) -> schemas.ScaledOut:
        worked_out = scaled_column(found, target, school, self.circumstances)
        return schemas.ScaledOut(**vars(worked_out), name=self.name, role=role, person_id=self.person_id)


@remembered
def converted(session: Session, whose: Other, rule_set: str, target: str, school: str) -> object:
    """The session under other rules, for the same person."""
    found = convert(session, whose.person, rule_set, whose.circumstances)
    return schemas.ScaleOut([whose.column(found, target, school, "")], [])


@remembered
def scaled(session: Session, person: Person, others: tuple[Other, ...], target: str, school: str) -> object:
    """The session for the weakest, the middle and the strongest of those who can do it, and why others cannot.

    Raises `ScaleError` where nobody can.
    """
    left, not_for = list(others), list[str]()
    known: dict[Other, Scaled] = {}
    while left:
        roles = three_of([each.person for each in left])
        chosen = {cast(schemas.Role, role): left[index] for role, index in roles.items()}
        for other in chosen.values():
            try:
                if other not in known:
                    known[other] = scale(session, person, other.person, other.circumstances)
            except ScaleError as error:
                not_for.append(f"{other.name}: {error}")
                left.remove(other)
                break
        else:
            columns = [other.column(known[other], target, school, role) for role, other in chosen.items()]
            return schemas.ScaleOut(columns, not_for)
    raise ScaleError(not_for[0])


@remembered
def nudged(session: Session, person: Person, target: str, circumstances: Circumstances, minutes: int | None) -> object:
    return [
        {
            "name": nudge.name,
            "part": nudge.part,
            "document": to_document(nudge.session),
            "strokes": nudge.strokes,
            "changes": [asdict(change) for change in nudge.changes],
            "cures": list(nudge.cures),
        }
        for nudge in nudges(person, session, target, circumstances, minutes)
    ]


@remembered
def made_so(session: Session, person: Person, target: str, circumstances: Circumstances, minutes: int | None) -> object:
    found = make_it_so(person, session, target, circumstances, minutes)
    return {
        "steps": list(found.steps),
        "document": to_document(found.session),
        "strokes": found.strokes,
        "reached": found.reached,
    }
