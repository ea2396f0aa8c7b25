"""From what a coach asks for to the camp of the core, and to whom it is for."""

import hashlib
from collections.abc import Callable
from dataclasses import dataclass
from datetime import time

import msgspec
from django.utils import timezone

from server.accounts.models import Club
from server.bench.circumstances import circumstances_of
from server.camp.models import Camp
from server.camp.schemas import AskedIn
from server.errors import FieldError
from server.roster.models import Group, Person
from server.sessions.api import find_session
from yoisho.camp.camp import Camp as CoreCamp
from yoisho.camp.camp import CampError, Fixed, Weekday
from yoisho.camp.ladders import Choices, choices
from yoisho.camp.plain_choices import from_plain, sessions_to_plain, to_plain
from yoisho.camp.rules import Ceilings, ceilings
from yoisho.camp.weights import weights_of
from yoisho.engine.person import Level, person
from yoisho.engine.person import Person as CorePerson
from yoisho.judgement.circumstances import Circumstances
from yoisho.plain import sentence
from yoisho.session.document import Session, from_document


def core_camp(asked: AskedIn, club: Club) -> CoreCamp:
    """The camp as the core has it. What cannot be is a 422 with its field."""
    weekdays: tuple[Weekday, ...] = tuple(dict.fromkeys(day.weekday for day in asked.days))
    cutoff = asked.lactic_cutoff_days or club.last_lactic_days
    try:
        return CoreCamp(
            start=asked.start, bout_on=asked.bout_on, weeks=asked.weeks, rule_set=asked.rule_set or None,
            days=weekdays, minutes={day.weekday: day.minutes for day in asked.days}, most_a_week=asked.most_a_week,
            weights=dict(asked.weights), ease_every=asked.ease_every, lactic_cutoff_days=cutoff,
            most_climb=asked.most_climb, softened=tuple(asked.softened), first_weekday=club.first_weekday,
            fixed=tuple(Fixed(each.purpose, each.on, each.weekday, each.every_weeks) for each in asked.fixed),
        )  # fmt: skip
    except CampError as error:
        raise FieldError(["body", "asked", error.field or "start"], sentence(error), "camp") from error


def at_of(asked: AskedIn) -> dict[str, time]:
    """The hour of each weekday."""
    return {day.weekday: day.at for day in asked.days}


@dataclass(frozen=True)
class Whom:
    """Whom a camp is for, as the engine sees them."""

    core: CorePerson
    around: Circumstances
    ceilings: Ceilings


def whom(camp: Camp) -> Whom:
    """The person; for a group a club's adult of the level most of them have, as far as no one's own limits go."""
    if camp.person is not None:
        core, around = camp.person.to_core(), circumstances_of(camp.person, None)
        return Whom(core, around, ceilings(core.level, around.limits))
    level = _level_of(camp.group)
    return Whom(person(level=level), Circumstances(of_somebody=False), ceilings(level))


def _level_of(group: Group | None) -> Level:
    levels: list[Level] = [who.level for who in group.people.filter(archived_at=None)] if group else []  # type: ignore[misc]
    return max(sorted(set(levels)), key=levels.count, default="club")


def _bases(asked: AskedIn, club: Club) -> dict[str, Session]:
    return {
        purpose: from_document(find_session(club, session_id).document) for purpose, session_id in asked.bases.items()
    }


def _key(core: CoreCamp, known: Whom, bases: dict[str, Session]) -> str:
    """Of all that the choices follow from."""
    besides = sorted({purpose for _, purpose in core.fixtures})
    told = (
        repr(known.core), repr((known.around.limits, known.around.screening, known.around.concussion_uncleared)),
        sorted(weights_of(core)), besides, core.rule_set, sorted(core.minutes.items()), repr(sorted(bases.items())),
        str(timezone.localdate()) if known.around.limits else "",
    )  # fmt: skip
    return hashlib.sha256(msgspec.json.encode(told)).hexdigest()


@dataclass(frozen=True)
class Choosing:
    """What stands to choose from: at once where it was simulated before, else when it is made."""

    core: CoreCamp
    known: Whom
    bases: dict[str, Session]
    key: str
    kept: Choices | None

    def make(self, told: Callable[[float], None]) -> Choices:
        return self.kept or choices(self.core, self.known.core, self.known.around, self.bases, told=told)


def choosing(camp: Camp, core: CoreCamp, asked: AskedIn) -> Choosing:
    known, bases = whom(camp), _bases(asked, camp.club)
    key = _key(core, known, bases)
    same = camp.choices is not None and camp.choices_key == key
    return Choosing(core, known, bases, key, read_choices(camp) if same else None)


def read_choices(camp: Camp) -> Choices:
    """As they were kept, with their sessions; nothing before the first plan."""
    if camp.choices is None:
        return Choices({}, {})
    return from_plain(camp.choices, camp.sessions_to_choose)


def keep_choices(camp: Camp, key: str, found: Choices) -> None:
    if camp.choices_key != key:
        camp.choices, camp.sessions_to_choose, camp.choices_key = to_plain(found), sessions_to_plain(found), key
        camp.save(update_fields=["choices", "sessions_to_choose", "choices_key"])


def whose(camp: Camp) -> Person | Group:
    found = camp.person or camp.group
    assert found is not None
    return found
