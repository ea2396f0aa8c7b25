from datetime import date, timedelta
from typing import Any
from uuid import UUID

from django.http import HttpRequest
from django.utils import timezone
from ninja import Router

from server.accounts.current import club
from server.errors import Faults, FieldError, Message, not_found
from server.floor.api import efforts_of
from server.logbook.done import lived_timeline, pain_out, reviewed
from server.logbook.models import LogEntry, RunJournal
from server.logbook.schemas import (
    DoneOut,
    Event,
    JournalIn,
    JournalOut,
    LogDetail,
    LogIn,
    LogOut,
    RecordIn,
    ReviewIn,
    WeekOut,
)
from server.roster.api import core_of, find_person
from server.sessions.evaluation import interval_out
from server.sessions.kept_api import find_session
from yoisho.engine.bouts import session_rpe
from yoisho.engine.person import Person as CorePerson
from yoisho.engine.readout import NoWorkError, read
from yoisho.judgement.cautions import is_lactic
from yoisho.session.document import from_document
from yoisho.session.shorthand import write
from yoisho.session.timeline import Timeline
from yoisho.session.volume import Volume, interval_volume, total

router = Router(tags=["logbook"])
WEEKS = 8


def _told(entry: LogEntry, unwell_at_s: list[float] | None = None) -> dict[str, Any]:
    session = from_document(entry.document)
    return dict(
        id=entry.pk,
        session_id=entry.session_id,
        title=entry.title,
        person=entry.person.name if entry.person else None,
        text=[write(part.tree, entry.club.school) for part in session.parts],
        started_at=entry.started_at,
        planned_s=entry.planned_s,
        planned_efforts=entry.planned_efforts,
        planned_rpe=entry.planned_rpe,
        planned_load=entry.planned_rpe * entry.planned_s / 60,
        done_s=entry.done_s,
        done_efforts=entry.done_efforts,
        rpe=entry.rpe,
        load=entry.rpe * entry.done_s / 60,
        expected_strikes=sum(entry.expected_limbs.values()),
        counted_strikes=entry.counted_strikes,
        limbs=entry.volume.limbs,
        note=entry.note,
        place=entry.place,
        done=entry.done,
        pain=pain_out(entry.pain),
        unwell_at_s=unwell_at_s or [],
        simulated=entry.simulated,
        devices_simulated=entry.devices_simulated,
    )


def _out(entry: LogEntry, unwell_at_s: list[float] | None = None) -> LogOut:
    return LogOut(**_told(entry, unwell_at_s))


def expectation(who: CorePerson, timeline: Timeline, done_s: int) -> tuple[bool, Volume]:
    """Whether what was done of a session counts as lactic work for the person, and the strikes expected of it."""
    done = Timeline(tuple(interval for interval in timeline.intervals if interval.start_s < done_s))
    try:
        reading = read(who, done, ranges=False)
    except NoWorkError:
        return False, Volume()
    return is_lactic(reading), reading.volume


@router.get("/log", response=list[LogOut], operation_id="log")
def log(request: HttpRequest) -> list[LogOut]:
    """What was done, newest first."""
    own = club(request)
    entries = list(LogEntry.objects.filter(club=own).select_related("person", "club")[:200])
    journals = RunJournal.objects.filter(club=own, run_id__in=[entry.run_id for entry in entries])
    unwell = {journal.run_id: journal.incidents for journal in journals}
    return [_out(entry, unwell.get(entry.run_id)) for entry in entries]


@router.get("/people/{person_id}/weeks", response={200: list[WeekOut], 404: Message}, operation_id="weeks")
def weeks(request: HttpRequest, person_id: int) -> list[WeekOut]:
    """Strikes of the person in each of the last eight weeks, this one last."""
    own = club(request)
    someone = find_person(own, person_id)
    today = timezone.localdate()
    this_monday = today - timedelta(days=today.weekday())
    mondays = [this_monday - timedelta(weeks=back) for back in reversed(range(WEEKS))]
    entries = LogEntry.objects.filter(club=own, person=someone, started_at__date__gte=mondays[0])
    held: dict[date, list[LogEntry]] = {monday: [] for monday in mondays}
    for entry in entries:
        day = timezone.localtime(entry.started_at).date()
        held.get(day - timedelta(days=day.weekday()), []).append(entry)
    return [_week(monday, done) for monday, done in held.items()]


def _week(monday: date, entries: list[LogEntry]) -> WeekOut:
    whole = total(entry.volume for entry in entries)
    return WeekOut(
        monday=monday,
        sessions=len(entries),
        limbs=whole.limbs,
        levels=whole.levels,
        strikes=whole.strikes,
        counted=whole.counted,
    )


@router.get("/log/{entry_id}", response={200: LogDetail, 404: Message}, operation_id="log_entry")
def log_entry(request: HttpRequest, entry_id: int) -> LogDetail:
    """One entry with all that was kept of it."""
    entry = LogEntry.objects.filter(club=club(request), pk=entry_id).select_related("person", "club").first()
    if entry is None:
        raise not_found("log entry")
    journal = RunJournal.objects.filter(club=entry.club, run_id=entry.run_id).first()
    session = from_document(entry.document)
    record = RecordIn(**entry.record) if entry.record else None
    own_timeline, stance = lived_timeline(session.unrolled(), record), core_of(entry.person).stance
    return LogDetail(
        **_told(entry, journal.incidents if journal else None),
        part_names=[part.name for part in session.parts],
        timeline=[interval_out(one, interval_volume(one, stance)) for one in own_timeline.intervals],
        heart=record.heart if record else [],
    )


@router.post(
    "/sessions/{session_id}/review", response={200: DoneOut, 404: Message, 422: Faults}, operation_id="review_run"
)
def review_run(request: HttpRequest, session_id: int, body: ReviewIn) -> DoneOut:
    """What one of the people on the floor did of a run, round by round. Nothing is kept."""
    own = club(request)
    saved = find_session(own, session_id)
    return reviewed(core_of(find_person(own, body.person_id)), from_document(saved.document).unrolled(), body.record)


@router.put("/runs/{run_id}/log", response={200: LogOut, 404: Message, 422: Faults}, operation_id="save_log")
def save_log(request: HttpRequest, run_id: UUID, body: LogIn) -> LogOut:
    """Log a run. The same run sent again replaces its entry, so that a retry never makes two."""
    own = club(request)
    session = find_session(own, body.session_id)
    document = from_document(session.document)
    if not document.parts:
        raise FieldError(["body", "session_id"], "This session has no parts, so nothing was run.", "log")
    if body.started_at > timezone.now() + timedelta(minutes=10):
        raise FieldError(["body", "started_at"], "The start lies in the future. Check this device's clock.", "log")
    record, plan = body.record, document.unrolled()
    timeline = lived_timeline(plan, record)
    efforts = efforts_of(timeline)
    if body.done_efforts > len(efforts):
        raise FieldError(
            ["body", "done_efforts"], f"The plan has {len(efforts)} efforts; give {len(efforts)} or fewer.", "log"
        )
    someone = find_person(own, body.person_id)
    who = core_of(someone)
    lactic, volume = expectation(who, timeline, body.done_s)
    entry, _ = LogEntry.objects.update_or_create(
        club=own,
        run_id=run_id,
        place=record.place if record else 0,
        defaults={
            "session": session,
            "person": someone,
            "title": document.title,
            "document": session.document,
            "started_at": body.started_at,
            "planned_s": timeline.total_s,
            "planned_efforts": len(efforts),
            "planned_rpe": session_rpe(timeline),
            "done_s": body.done_s,
            "done_efforts": body.done_efforts,
            "rpe": body.rpe,
            "lactic": lactic,
            "expected_limbs": volume.limbs,
            "expected_levels": volume.levels,
            "counted_strikes": body.counted_strikes,
            "note": body.note,
            "record": record.model_dump(mode="json") if record else None,
            "devices_simulated": record is not None and record.simulated,
            "done": reviewed(who, plan, record).model_dump(mode="json") if record else None,
            "pain": [flag.model_dump() for flag in body.pain],
        },
    )
    return _out(entry)


@router.put(
    "/runs/{run_id}/journal", response={200: JournalOut, 404: Message, 422: Faults}, operation_id="save_journal"
)
def save_journal(request: HttpRequest, run_id: UUID, body: JournalIn) -> JournalOut:
    """What happened in a run, whole. Sent again, or longer, it takes the place of what was sent before."""
    own = club(request)
    session = find_session(own, body.session_id)
    events = body.model_dump(mode="json")["events"]
    journal, new = RunJournal.objects.get_or_create(
        club=own, run_id=run_id, defaults={"session": session, "events": events}
    )
    # An older one that comes late takes nothing away.
    if not new and len(events) >= len(journal.events):
        journal.events = events
        journal.save(update_fields=["events", "received_at"])
    return JournalOut(run_id=run_id, session_id=body.session_id, events=body.events)


@router.get("/runs/{run_id}/journal", response={200: JournalOut, 404: Message}, operation_id="journal")
def journal(request: HttpRequest, run_id: UUID) -> JournalOut:
    found = RunJournal.objects.filter(club=club(request), run_id=run_id).first()
    if found is None:
        raise not_found("journal")
    return JournalOut(run_id=run_id, session_id=found.session_id or 0, events=[Event(**each) for each in found.events])
