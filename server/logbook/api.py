from dataclasses import asdict
from datetime import timedelta
from typing import Any
from uuid import UUID

from django.db import transaction
from django.http import HttpRequest
from django.utils import timezone
from ninja import Router
from ninja.pagination import paginate

from server.accounts.current import club_of, coach
from server.accounts.models import Club, User
from server.errors import Faults, FieldError, Message, not_found
from server.logbook.models import LogEntry
from server.logbook.schemas import LogDetail, LogIn, LogOut, PainOut
from server.pages import Listed, Pages
from server.roster.api import core_of, find_person
from server.roster.models import Person
from server.runs.kept import begin, plan_of
from server.runs.models import Journal, Result, Run
from server.runs.schemas import RecordIn
from yoisho.answers.intervals import interval_answer, volumes_of
from yoisho.answers.log import Logged, logged
from yoisho.engine.readout import try_reading
from yoisho.judgement.cautions import SEALS
from yoisho.review.pain import PLACES
from yoisho.review.pain import told as pain_told
from yoisho.runs.record import Record, lived
from yoisho.session.document import from_document
from yoisho.session.shorthand import write

router = Router(tags=["logbook"])


def _pain(flags: list[dict[str, Any]]) -> list[PainOut]:
    return [
        PainOut(where=flag["where"], side=flag["side"], text=pain_told(flag["where"], flag["side"]))
        for flag in flags
        if flag["where"] in PLACES
    ]


def _told(entry: LogEntry) -> dict[str, Any]:
    result, run = entry.result, entry.run
    journal: Journal | None = getattr(run, "journal", None)
    return dict(
        id=entry.pk,
        run_id=run.run_id,
        session_id=run.session_id,
        title=run.title,
        person=result.person.name if result.person else None,
        text=[write(part.tree, entry.club.school) for part in from_document(run.document).parts],
        started_at=entry.started_at,
        planned_s=entry.planned_s,
        planned_efforts=entry.planned_efforts,
        planned_rpe=entry.planned_rpe,
        planned_load=entry.planned_rpe * entry.planned_s / 60,
        done_s=entry.done_s,
        done_efforts=entry.done_efforts,
        rpe=entry.rpe,
        load=entry.rpe * entry.done_s / 60,
        expected_strikes=sum(result.expected_limbs.values()),
        counted_strikes=entry.counted_strikes,
        limbs=entry.volume.limbs,
        note=entry.note,
        place=result.place,
        done=result.done,
        pain=_pain(entry.pain),
        unwell_at_s=journal.incidents if journal else [],
        overruled=[SEALS.get(rule, rule) for rule in journal.overruled] if journal else [],
        simulated=entry.simulated,
        devices_simulated=result.devices_simulated,
    )


def entries_of(club: Club) -> Any:
    """The club's log with all that is told of an entry."""
    return LogEntry.objects.of(club).select_related("club", "result__person", "result__run__journal")


@router.get("/log", response=list[LogOut], operation_id="log")
@paginate(Pages)
def log(request: HttpRequest) -> Listed:
    """What was done, newest first."""
    return Listed(entries_of(club_of(request)), _told)


@router.get("/log/{entry_id}", response={200: LogDetail, 404: Message}, operation_id="log_entry")
def log_entry(request: HttpRequest, entry_id: int) -> LogDetail:
    """One entry with all that was kept of it."""
    entry = entries_of(club_of(request)).filter(pk=entry_id).first()
    if entry is None:
        raise not_found("log entry")
    plan, kept = plan_of(entry.run, entry.result.place), entry.result.record
    record = RecordIn(**kept) if kept else None
    own = lived(plan.timeline, record.to_core()) if record else plan.timeline
    person = core_of(entry.result.person)
    volumes = volumes_of(own, try_reading(person, own), person.stance)
    return LogDetail(
        **_told(entry),
        left_out=entry.left_out,
        part_names=[part.name for part in plan.session.parts],
        timeline=[interval_answer(*each) for each in zip(own.intervals, volumes, strict=True)],
        heart=record.heart if record else [],
    )


def _checked(body: LogIn, run: Run, person: Person | None) -> Logged:
    plan = plan_of(run)
    if not plan.session.parts:
        raise FieldError(["body", "run", "document"], "This session has no parts, so nothing was run.", "log")
    if body.started_at > timezone.now() + timedelta(minutes=10):
        raise FieldError(["body", "started_at"], "The start lies in the future. Check this device's clock.", "log")
    record: Record | None = body.record.to_core() if body.record else None
    found = logged(core_of(person), plan, record, body.done_s)
    most = found.planned_efforts
    if body.done_efforts > most:
        raise FieldError(["body", "done_efforts"], f"The plan has {most} efforts; give {most} or fewer.", "log")
    return found


@router.put("/runs/{run_id}/log", response={200: LogOut, 404: Message, 422: Faults}, operation_id="save_log")
def save_log(request: HttpRequest, run_id: UUID, body: LogIn) -> LogOut:
    """Log a run, by the plan that was run. Sent again it replaces its entry, so that a retry never makes two."""
    user = coach(request)
    entry = save(user, run_id, body)
    return LogOut(**_told(entries_of(user.own_club).get(pk=entry.pk)))


def save(user: User, run_id: UUID, body: LogIn) -> LogEntry:
    """The entry of a run, once it is known to be possible."""
    with transaction.atomic():
        run = begin(user.own_club, user, run_id, body.run)
        person = find_person(user.own_club, body.person_id)
        place = body.record.place if body.record else 0
        return keep(run, person, body, _checked(body, run, person), place)


def keep(run: Run, person: Person | None, body: LogIn, found: Logged, place: int) -> LogEntry:
    """The entry of one of those on the floor, at a place from 0."""
    record = body.record
    result, _ = Result.objects.update_or_create(
        run=run,
        place=place,
        defaults={
            "person": person,
            "record": record.model_dump(mode="json") if record else None,
            "done": asdict(found.done) if found.done else None,
            "lactic": found.lactic,
            "expected_limbs": found.volume.limbs,
            "expected_heights": found.volume.heights,
            "devices_simulated": record is not None and record.simulated,
        },
    )
    entry, _ = LogEntry.objects.update_or_create(
        club=run.club,
        result=result,
        defaults={
            "started_at": body.started_at,
            "planned_s": found.planned_s,
            "planned_efforts": found.planned_efforts,
            "planned_rpe": found.planned_rpe,
            "done_s": body.done_s,
            "done_efforts": body.done_efforts,
            "rpe": body.rpe,
            "counted_strikes": body.counted_strikes,
            "note": body.note,
            "pain": [flag.model_dump() for flag in body.pain],
        },
    )
    entry.take_sums(found.minutes)
    return entry
