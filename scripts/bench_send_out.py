"""Measure what leaves the hall: the wall sheet, an hour's cue track in every format, a club out and in again."""

import io
import os
import resource
import sys
import tempfile
import time
import zipfile
from pathlib import Path
from uuid import uuid4

sys.path.insert(0, str(Path(__file__).resolve().parent.parent))
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "server.settings")
import django

django.setup()

from django.conf import settings  # noqa: E402
from django.test import Client  # noqa: E402

from server.accounts.models import Club  # noqa: E402
from server.logbook.models import LogEntry  # noqa: E402
from server.records.bring_in import bring_in  # noqa: E402
from server.records.export import archive  # noqa: E402
from server.records.tables import TABLES  # noqa: E402
from server.roster.models import Person  # noqa: E402
from server.runs.models import Result, Run  # noqa: E402
from server.sendout.cue_track import FORMS, kept, track_name, write_track  # noqa: E402
from server.sendout.wall_sheet import wall_sheet_pdf  # noqa: E402
from yoisho.answers.wall_sheet import wall_sheet  # noqa: E402
from yoisho.runs.calls import Settings  # noqa: E402
from yoisho.runs.plan import Plan  # noqa: E402
from yoisho.session.document import Part, Session  # noqa: E402
from yoisho.session.shorthand import read, read_parts  # noqa: E402

PEOPLE, LOGS = 100, 5000
HOUR = "Warm-up: 10:00 flow shadow\nMain: 45 x (40 power bag [1-2-3]) rest 0:20\nCool-down: 5:20 flow shadow"


def took(what: str, seconds: float, more: str = "") -> None:
    print(f"{what:58s} {seconds:8.2f} s{more}")


def sheet() -> None:
    line = read("3 x (1:00 power bag [1-2-3-2, slip, 2]) rest 0:30")
    session = Session("Twelve stations", tuple(Part(f"Station {number}", line) for number in range(1, 13)))
    for _ in range(3):
        began = time.perf_counter()
        wall_sheet_pdf(wall_sheet(session, "threshold", "overhands"), "a4", "http://127.0.0.1/s/" + "x" * 24, "today")
        took("wall sheet of twelve parts, worked out and drawn", time.perf_counter() - began)


def tracks() -> None:
    plan = Plan(Session("An hour", read_parts(HOUR)))
    write_track(plan, Settings(), "wav", False, lambda _done: None)
    before = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss
    for form in FORMS:
        settings.TRACKS = tempfile.mkdtemp()
        began = time.perf_counter()
        digest = write_track(plan, Settings(), form, False, lambda _done: None)
        took(f"cue track of {plan.timeline.total_s // 60} minutes as {form}", time.perf_counter() - began,
             f", {kept().size(track_name(digest, form)) / 1e6:.1f} MB")  # fmt: skip
    after = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss
    print(f"memory: {after / 1024:.0f} MB in all, {(after - before) / 1024:.0f} MB more than after the first")


def crowded(club: Club) -> None:
    """As many people and logs, each log one of the demo's own with all that was kept of it."""
    known = {"club": club, "level": "club", "birth_year": 1990, "mass_kg": 70.0}
    missing = PEOPLE - club.people.count()
    people = Person.objects.bulk_create([Person(name=f"Athlete {number}", **known) for number in range(missing)])
    own = list(LogEntry.objects.defer(None).filter(club=club).select_related("result__run"))
    wanted = [(own[number % len(own)], people[number % missing]) for number in range(LOGS - len(own))]
    runs, results, entries = [], [], []
    for entry, person in wanted:
        run = Run(**{field.name: getattr(entry.run, field.name) for field in Run._meta.fields if field.name != "id"})
        run.run_id, run.person = uuid4(), person
        runs.append(run)
    Run.objects.bulk_create(runs, batch_size=500)
    for (entry, person), run in zip(wanted, runs, strict=True):
        told = {field.name: getattr(entry.result, field.name) for field in Result._meta.fields if field.name != "id"}
        results.append(Result(**{**told, "run": run, "person": person}))
    Result.objects.bulk_create(results, batch_size=500)
    for (entry, _), result in zip(wanted, results, strict=True):
        told = {field.name: getattr(entry, field.name) for field in LogEntry._meta.fields if field.name != "id"}
        entries.append(LogEntry(**{**told, "result": result}))
    LogEntry.objects.bulk_create(entries, batch_size=500)


def club() -> None:
    Client(HTTP_HOST="127.0.0.1").post("/api/demo")
    here = Club.objects.get()
    crowded(here)
    began = time.perf_counter()
    whole = archive(here)
    out_s = time.perf_counter() - began
    took(
        f"export of {here.people.count()} people and {LogEntry.objects.count()} logs",
        out_s,
        f", {len(whole) / 1e6:.1f} MB",
    )
    there = Club.objects.create(name="Empty")
    began = time.perf_counter()
    bring_in(there, io.BytesIO(whole))
    took("the same brought into an empty club", time.perf_counter() - began)
    again = archive(there)
    with zipfile.ZipFile(io.BytesIO(whole)) as one, zipfile.ZipFile(io.BytesIO(again)) as other:
        same = all(one.read(f"{table.name}.jsonl") == other.read(f"{table.name}.jsonl") for table in TABLES)
    print("row by row the same" if same else "NOT the same")
    there.delete()


sheet()
tracks()
club()
