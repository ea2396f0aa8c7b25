"""Records in open formats: a club whole, its log, its planned sessions, the heart rate of an entry."""

from typing import BinaryIO, Literal, cast

from django.http import HttpRequest, HttpResponse
from ninja import File, Router, Schema
from ninja.files import UploadedFile

from server.accounts.current import club_of, coach
from server.errors import Faults, FieldError, Message
from server.files import named
from server.logbook.models import LogEntry
from server.records import heart_trace
from server.records.bring_in import ArchiveError, bring_in
from server.records.calendar import calendar
from server.records.export import archive, log_csv

router = Router(tags=["records"])
MOST_BYTES = 200_000_000


def file_answer(content: bytes | str, media_type: str, title: str, ending: str, or_else: str) -> HttpResponse:
    """Something to be saved, called after a title."""
    answer = HttpResponse(content, content_type=media_type)
    answer.headers["Cache-Control"] = "no-store"
    return named(answer, title, ending, or_else)


@router.get("/club/records", response={200: None}, operation_id="export_club")
def export_club(request: HttpRequest) -> HttpResponse:
    """Everything that the club keeps, as one archive of open files."""
    club = club_of(request)
    return file_answer(archive(club), "application/zip", club.name, ".zip", "club")


class BroughtIn(Schema):
    rows: dict[str, int]
    """Of each table."""


@router.post("/club/records", response={200: BroughtIn, 422: Faults}, operation_id="import_club")
def import_club(request: HttpRequest, file: File[UploadedFile]) -> BroughtIn:
    """An archive brought into an empty club: all of it, or nothing with the line that is wrong."""
    user = coach(request)
    if not file.size:
        raise FieldError(["file"], "This file is empty.", "archive")
    if file.size > MOST_BYTES:
        raise FieldError(["file"], f"This file is larger than {MOST_BYTES // 1_000_000} MB.", "archive")
    try:
        return BroughtIn(rows=bring_in(user.own_club, cast(BinaryIO, file.file)))
    except ArchiveError as error:
        raise FieldError(["file"], str(error), "archive") from error


@router.get("/records/log", response={200: None}, operation_id="log_file")
def log_file(request: HttpRequest) -> HttpResponse:
    """The club's log as CSV, oldest first."""
    return file_answer(log_csv(club_of(request)), "text/csv; charset=utf-8", "log", ".csv", "log")


@router.get("/records/planned", response={200: None}, operation_id="planned_file")
def planned_file(request: HttpRequest) -> HttpResponse:
    """The sessions that are planned, as a calendar (RFC 5545). No name and nothing of health is in it."""
    return file_answer(calendar(club_of(request)), "text/calendar; charset=utf-8", "planned", ".ics", "planned")


@router.get("/log/{entry_id}/heart-trace", response={200: None, 404: Message, 422: Faults}, operation_id="heart_trace")
def heart_trace_of(request: HttpRequest, entry_id: int, form: Literal["tcx", "csv"] = "csv") -> HttpResponse:
    """The heart rate of an entry."""
    entry = LogEntry.objects.find(club_of(request), "log entry", pk=entry_id)
    heart = [(at, bpm) for at, bpm in (entry.result.record or {}).get("heart", [])]
    if not heart:
        raise FieldError(["path", "entry_id"], "No heart rate is kept with this entry.", "heart")
    called = entry.run.title, f"-{entry.started_at:%Y-%m-%d}.{form}", "session"
    if form == "csv":
        return file_answer(heart_trace.as_csv(heart), "text/csv; charset=utf-8", *called)
    return file_answer(heart_trace.as_tcx(heart, entry.started_at), "application/xml", *called)
