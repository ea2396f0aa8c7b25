"""Planned sessions as a calendar that any other reads (RFC 5545)."""

from datetime import datetime, timedelta
from zoneinfo import ZoneInfo

from icalendar import Calendar, Event

from server.accounts.models import Club
from server.today.models import Planned
from yoisho.judgement.targets import TARGETS
from yoisho.session.document import from_document


def _event(planned: Planned, zone: ZoneInfo) -> Event:
    session = from_document(planned.session.document)
    starts = datetime.combine(planned.on, planned.at, zone)
    event = Event()
    # The same for as long as it is planned, whatever is changed of it.
    event.add("uid", f"planned-{planned.pk}@yoisho")
    event.add("dtstamp", planned.session.saved_at)
    event.add("dtstart", starts)
    event.add("dtend", starts + timedelta(seconds=max(60, session.total_s)))
    event.add("summary", session.title)
    target = TARGETS.get(planned.session.target)
    event.add("description", f"For {target.name}." if target else "")
    if planned.group:
        event.add("categories", [planned.group.name])
    return event


def calendar(club: Club) -> bytes:
    """All that is planned, by the clock of the club. Nobody's name and nothing of health is in it."""
    found = Calendar()
    found.add("prodid", "-//Yoisho//Planned sessions//EN")
    found.add("version", "2.0")
    found.add("x-wr-calname", club.name)
    zone = ZoneInfo(club.time_zone)
    for planned in Planned.objects.of(club).select_related("session", "group").order_by("on", "at", "pk"):
        found.add_component(_event(planned, zone))
    found.add_missing_timezones()
    return bytes(found.to_ical())
