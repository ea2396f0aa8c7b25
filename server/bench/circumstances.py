"""What the club knows around a session: the person's screening, bout and injuries, and their last days' log."""

from datetime import timedelta

from django.utils import timezone

from server.logbook.models import LogEntry
from server.roster.models import Person
from yoisho.judgement.cautions import NIGGLE_DAYS
from yoisho.judgement.circumstances import Circumstances
from yoisho.review.pain import niggle
from yoisho.session.volume import total


def circumstances_of(person: Person | None, wbgt_c: float | None) -> Circumstances:
    """For the cautions; nobody in particular has only the heat in the hall."""
    if person is None:
        return Circumstances(of_somebody=False, wbgt_c=wbgt_c)
    now, today = timezone.now(), timezone.localdate()
    recent = LogEntry.objects.counted(person.club).filter(
        result__person=person, started_at__gt=now - timedelta(days=NIGGLE_DAYS + 1), started_at__lte=now
    )
    week = [entry for entry in recent if entry.started_at > now - timedelta(days=7)]
    flags = [(flag, (today - timezone.localdate(entry.started_at)).days) for entry in recent for flag in entry.pain]
    last = max((entry.started_at for entry in week if entry.result.lactic), default=None)
    return Circumstances(
        screening=person.screening,
        days_to_fight=(person.fight_on - today).days if person.fight_on else None,
        hours_since_lactic=(now - last).total_seconds() / 3600 if last else None,
        wbgt_c=wbgt_c,
        concussion_uncleared=person.concussion_uncleared,
        niggles=tuple(niggle(flag["where"], flag["side"], days) for flag, days in flags),
        today=today,
        last_lactic_days=person.club.last_lactic_days,
        limits=person.limits_today,
        strikes_this_week=total(entry.volume for entry in week).limbs,
    )
