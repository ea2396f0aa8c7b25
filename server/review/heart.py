"""A file of heart rate on an entry of the log: looked at first, and kept where it was laid."""

from dataclasses import asdict
from typing import Any

from django.db import transaction
from django.http import HttpRequest
from ninja import File, Router
from ninja.files import UploadedFile

from server.accounts.current import club_of
from server.errors import Faults, FieldError, Message
from server.logbook.models import LogEntry
from server.review.schemas import HeartIn, HeartLooked
from server.roster.api import core_of
from server.runs.kept import plan_of
from server.runs.schemas import RecordIn
from yoisho.answers.log import logged
from yoisho.engine.readout import try_reading
from yoisho.formats.heart_file import MOST_BYTES, HeartFileError, read_heart_file
from yoisho.review.overlay import lay, on_the_run
from yoisho.runs.record import lived

router = Router(tags=["review"])
DRAWN_EVERY_S = 5


def _entry(request: HttpRequest, entry_id: int) -> LogEntry:
    return LogEntry.objects.find(club_of(request), "log entry", pk=entry_id)


def _kept(entry: LogEntry) -> RecordIn:
    """What was kept of the run; what was done of it where it was written down by hand."""
    record = entry.result.record
    return RecordIn(**(record or {"played": [{"from_s": 0, "to_s": entry.done_s}]}))


def _expected(entry: LogEntry) -> list[float]:
    """Heart rate on every second of the run as this person had it [bpm]."""
    plan = plan_of(entry.run, entry.result.place)
    reading = try_reading(core_of(entry.result.person), lived(plan.timeline, _kept(entry).to_core()))
    if reading is None:
        raise FieldError(["file"], "This session has no work, so there is nothing to lay a heart rate on.", "heart")
    return [float(bpm) for bpm in reading.traces.heart_rate_bpm]


@router.post(
    "/log/{entry_id}/heart/look", response={200: HeartLooked, 404: Message, 422: Faults}, operation_id="look_at_heart"
)
def look_at_heart(request: HttpRequest, entry_id: int, file: File[UploadedFile]) -> HeartLooked:
    """What a file tells, and where on the run it lies. Nothing is kept."""
    entry = _entry(request, entry_id)
    if (file.size or 0) > MOST_BYTES:
        raise FieldError(["file"], f"This file is larger than {MOST_BYTES // 1_000_000} MB.", "heart")
    try:
        found = read_heart_file(file.read())
    except HeartFileError as error:
        raise FieldError(["file"], str(error), "heart") from error
    expected = _expected(entry)
    laid = lay(found.heart, found.started_at, expected, entry.started_at)
    return HeartLooked(
        kind=found.kind,
        heart=list(found.heart),
        pauses=list(found.pauses),
        laps=list(found.laps),
        expected=[(float(at), expected[at]) for at in range(0, len(expected), DRAWN_EVERY_S)],
        **asdict(laid),
    )


@router.put("/log/{entry_id}/heart", response={200: Message, 404: Message, 422: Faults}, operation_id="keep_heart")
def keep_heart(request: HttpRequest, entry_id: int, body: HeartIn) -> Message:
    """Heart rate kept with an entry, laid where it is told; what the clock and the sensor told stays."""
    entry = _entry(request, entry_id)
    kept, plan = _kept(entry), plan_of(entry.run, entry.result.place)
    total_s = lived(plan.timeline, kept.to_core()).total_s
    heart = on_the_run(body.heart, body.shift_s, total_s)
    if not heart:
        raise FieldError(["body", "shift_s"], "Laid there, nothing of the file lies on the run. Move it.", "heart")
    record = kept.model_copy(
        update={"heart": list(heart), "simulated": False if kept.strikes is None else kept.simulated}
    )
    _keep(entry, record, logged(core_of(entry.result.person), plan, record.to_core(), entry.done_s))
    return Message(detail=f"{len(heart)} heart rates are kept with it.")


@transaction.atomic
def _keep(entry: LogEntry, record: RecordIn, found: Any) -> None:
    result = entry.result
    result.record = record.model_dump(mode="json")
    result.done = asdict(found.done) if found.done else None
    result.devices_simulated = record.simulated
    result.save(update_fields=["record", "done", "devices_simulated"])
    entry.save(update_fields=["left_out"])
