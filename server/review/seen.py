"""From entries of the log to what the core learns from."""

from django.db.models import QuerySet
from django.utils import timezone

from server.logbook.models import LogEntry
from server.roster.models import Person
from server.runs.kept import plan_of
from server.runs.schemas import RecordIn
from yoisho.engine.work_bouts import find_work_bouts
from yoisho.review.evidence import Seen
from yoisho.runs.record import Record, done_timeline, lived
from yoisho.session.timeline import Timeline

MOST_LOGS = 100
"""The newest; what is older counts for little."""


def _straight(record: Record) -> bool:
    """Played from its start without a skip, a step back or time added: its times are those of the plan."""
    return len(record.played) == 1 and record.played[0].from_s <= 0 and not record.stood and not record.counted


def _strikes(timeline: Timeline, record: Record) -> tuple[float, ...]:
    """As a sensor noticed them, of each effort."""
    if record.strikes is None:
        return ()
    spans = [
        (timeline.intervals[bout.first].start_s, timeline.intervals[bout.last].end_s)
        for bout in find_work_bouts(timeline)
    ]
    return tuple(float(sum(start <= at < end for at in record.strikes)) for start, end in spans)


def seen_of(entry: LogEntry) -> Seen:
    """What an entry tells. What simulated devices told counts for nothing, but in the demo's own history."""
    plan, result = plan_of(entry.run, entry.result.place), entry.result
    days_ago = max(0.0, (timezone.now() - entry.started_at).total_seconds() / 86_400)
    record = RecordIn(**result.record).to_core() if result.record else None
    counted = None if entry.counted_strikes is None else float(entry.counted_strikes)
    if record is None:
        total_s = plan.timeline.total_s
        done = min(1.0, entry.done_s / total_s) if total_s else 0.0
        return Seen(plan.timeline, done, entry.rpe, counted=counted, days_ago=days_ago)
    if not _straight(record):
        done_of = done_timeline(plan.timeline, record)
        return Seen(done_of, rpe=entry.rpe, counted=counted, days_ago=days_ago)
    own = lived(plan.timeline, record)
    done = min(1.0, record.played[0].to_s / own.total_s) if own.total_s else 0.0
    trusted = entry.simulated or not result.devices_simulated
    strikes = _strikes(own, record) if trusted else ()
    return Seen(
        own,
        done,
        entry.rpe,
        strikes=strikes,
        counted=None if strikes else counted,
        heart=record.heart if trusted else (),
        days_ago=days_ago,
    )


def logs_of(person: Person) -> QuerySet[LogEntry]:
    """The person's newest logs that something may be learned from, with their records."""
    rows = LogEntry.objects.filter(club=person.club, result__person=person, left_out=False).defer(None)
    return rows.select_related("result__run")[:MOST_LOGS]
