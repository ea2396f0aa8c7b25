"""What the club knows around a session: the person's screening, bout and injuries, and their last days' log."""

from collections import defaultdict
from dataclasses import replace
from datetime import datetime, timedelta
from functools import lru_cache
from uuid import UUID

from django.db import connection
from django.utils import timezone

from server.accounts.models import Club
from server.logbook.models import LogEntry
from server.roster.api import core_of, find_person
from server.roster.models import Person
from yoisho.engine.person import Person as CorePerson
from yoisho.judgement.cautions import NIGGLE_DAYS
from yoisho.judgement.circumstances import Circumstances
from yoisho.review.pain import niggle
from yoisho.session.volume import total

REMEMBERED = 500
"""People whom a process knows: those of a hall, at a few kilobytes each."""


def known_of(club: Club, person_id: int | None, wbgt_c: float | None) -> tuple[CorePerson, Circumstances]:
    """Somebody of the club as the engine sees them, and what must be known around a session of theirs.

    404 where they are not the club's. Asked again within the minute it comes from memory, while nothing of the club's
    people has changed.
    """
    known = _known.__wrapped__ if connection.in_atomic_block else _known
    who, circumstances = known(club, club.stamp, person_id, timezone.now().replace(second=0, microsecond=0))
    return who, replace(circumstances, wbgt_c=wbgt_c)


@lru_cache(REMEMBERED)
def _known(club: Club, _stamp: UUID, person_id: int | None, _minute: datetime) -> tuple[CorePerson, Circumstances]:
    saved = find_person(club, person_id)
    return core_of(saved), circumstances_of(saved, None)


def circumstances_of(person: Person | None, wbgt_c: float | None) -> Circumstances:
    """For the cautions; nobody in particular has only the heat in the hall."""
    if person is None:
        return Circumstances(of_somebody=False, wbgt_c=wbgt_c)
    return circumstances_for(person.club, [person], wbgt_c)[person.pk]


def circumstances_for(club: Club, people: list[Person], wbgt_c: float | None) -> dict[int, Circumstances]:
    """Of several people by their id, in as many questions as of one."""
    now = timezone.now()
    logged = LogEntry.objects.counted(club).filter(
        result__person__in=people, started_at__gt=now - timedelta(days=NIGGLE_DAYS + 1), started_at__lte=now
    )
    recent: dict[int | None, list[LogEntry]] = defaultdict(list)
    for entry in logged:
        recent[entry.result.person_id].append(entry)
    return {person.pk: _around(club, person, recent[person.pk], wbgt_c) for person in people}


def _around(club: Club, person: Person, recent: list[LogEntry], wbgt_c: float | None) -> Circumstances:
    now, today = timezone.now(), timezone.localdate()
    week = [entry for entry in recent if entry.started_at > now - timedelta(days=7)]
    flags = [(flag, (today - timezone.localdate(entry.started_at)).days) for entry in recent for flag in entry.pain]
    last = max((entry.started_at for entry in week if entry.result.lactic), default=None)
    return Circumstances(
        screening=person.screening,
        days_to_fight=(person.fight_on - today).days if person.fight_on else None,
        hours_since_lactic=(now - last) // timedelta(minutes=1) / 60 if last else None,
        wbgt_c=wbgt_c,
        concussion_uncleared=person.concussion_uncleared,
        niggles=tuple(niggle(flag["where"], flag["side"], days) for flag, days in flags),
        today=today,
        last_lactic_days=club.last_lactic_days,
        limits=person.limits_today,
        strikes_this_week=total(entry.volume for entry in week).limbs,
    )
