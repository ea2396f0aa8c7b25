"""Every record in open formats: a club goes out whole and comes into an empty one, row by row the same."""

import csv
import io
import json
import zipfile
from datetime import date, time, timedelta
from functools import partial
from uuid import uuid4

import icalendar
import jsonschema
import pytest
from django.apps import apps
from django.core.files.uploadedfile import SimpleUploadedFile
from django.core.management import call_command

from server.accounts.models import Club, Role, User
from server.records.tables import TABLES
from server.roster.models import Group
from server.today.models import Planned
from tests.demo_rows import DemoRows
from tests.server.conftest import Coach, fault, run_of
from yoisho.formats.heart_file import read_heart_file


def archive(coach) -> zipfile.ZipFile:
    answer = coach.get("club/records")
    assert answer.status_code == 200
    assert answer.headers["Content-Type"] == "application/zip"
    return zipfile.ZipFile(io.BytesIO(answer.content))


def lines(files: zipfile.ZipFile, name: str) -> list[dict]:
    return [json.loads(line) for line in files.read(f"{name}.jsonl").decode().splitlines()]


def zipped(content: dict[str, bytes]) -> bytes:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as files:
        for name, data in content.items():
            files.writestr(name, data)
    return out.getvalue()


def content_of(files: zipfile.ZipFile) -> dict[str, bytes]:
    return {name: files.read(name) for name in files.namelist()}


def bring(coach, data: bytes):
    return coach.client.post("/api/club/records", {"file": SimpleUploadedFile("club.zip", data)})


DEMO = DemoRows("two weeks", partial(call_command, "load_demo", weeks=2))


@pytest.fixture
def full(db, once):
    """The demo hall with two weeks behind it, its owner signed in, and one of everything else."""
    DEMO.load(once)
    club = Club.objects.get()
    owner = Coach.__new__(Coach)
    owner.club, owner.user, owner.client = club, User.objects.get(), Coach("no hall").client
    owner.client.force_login(owner.user, backend="server.accounts.backend.CoachBackend")
    link = owner.post("links", {"session_id": club.sessions.first().pk}).json()
    sent = {
        "run_id": str(uuid4()), "name": "Bram", "document": club.sessions.first().document, "done_s": 60, "rpe": 3,
        "started_at": "2026-11-29T18:00:00Z", "done_efforts": 0,
    }  # fmt: skip
    token = link["address"].rsplit("/", 1)[1]
    assert owner.post(f"shared/{token}/sent-back", sent).status_code == 201
    return owner


def test_a_club_goes_out_whole_and_comes_into_an_empty_one_row_by_row_the_same(full, stranger):
    out = archive(full)
    assert len(lines(out, "people")) == 16
    assert len(lines(out, "log")) > 20
    for table in ("limits", "tests", "knocks", "versions", "combinations", "results", "planned", "sent_back"):
        assert lines(out, table), table
    answer = bring(stranger, out.fp.getvalue())
    assert answer.status_code == 200, answer.content
    assert answer.json()["rows"]["people"] == 16
    again = archive(stranger)
    for table in TABLES:
        assert lines(again, table.name) == lines(out, table.name), table.name
    for name in ("club.json", "people.csv", "sessions.csv", "log.csv", "strikes.csv", "tests.csv"):
        assert again.read(name) == out.read(name), name
    entry = stranger.listed("log?limit=200")[0]
    assert stranger.get(f"log/{entry['id']}").status_code == 200, "what came in is used as if it had been made here"
    assert full.get(f"log/{entry['id']}").status_code == 404


def test_every_row_is_as_its_schema_says(full):
    out = archive(full)
    for table in TABLES:
        schema = json.loads(out.read(f"{table.name}.schema.json"))
        jsonschema.Draft202012Validator.check_schema(schema)
        check = jsonschema.Draft202012Validator(schema, format_checker=jsonschema.FormatChecker())
        for row in lines(out, table.name):
            check.validate(row)


STAYS = {
    "Club", "User", "Answered", "SetUpCode", "Invitation", "LiveState", "Letter", "ShareLink", "Calibration",
    "CueTrack", "Music", "ApiToken", "CampFeed",
}  # fmt: skip
"""Who may enter, what was answered to devices, where clocks stand just now, post between coaches, ways in from outside,
and what is made or worked out anew."""


def test_every_table_of_a_club_goes_out_or_is_named_with_its_reason():
    rooms = [room for room in apps.get_app_configs() if room.name.startswith("server.")]
    kept = {model.__name__ for room in rooms for model in room.get_models()}
    assert kept - STAYS == {table.model.__name__ for table in TABLES}


def test_no_account_and_no_link_is_in_it(full):
    whole = b"".join(content_of(archive(full)).values())
    assert b"password" not in whole.replace(b"Accounts, passwords and links", b"")
    assert b"demo-coach" not in whole


def test_it_comes_into_an_empty_club_alone(full, coach):
    data = archive(full).fp.getvalue()
    coach.person()
    refused = bring(coach, data)
    assert "empty" in fault(refused)["msg"]
    assert len(coach.listed("people")) == 1


@pytest.mark.parametrize(
    ("table", "change", "said"),
    [
        ("people", {"level": "champion"}, "people.jsonl, line 2, level"),
        ("people", {"name": None}, "people.jsonl, line 2, name"),
        ("people", {"groups": [99]}, "there is no row 99"),
        ("people", {"shoe_size": 44}, '"shoe_size"'),
        ("sessions", {"document": {"format": "yoisho-session", "version": 99}}, "sessions.jsonl, line 2"),
        ("log", {"result": 100_000}, "log.jsonl, line 2, result"),
        ("log", {"rpe": "hard"}, "log.jsonl, line 2, rpe"),
        ("log", {"number": 7}, "numbered by their lines"),
        ("log", {"started_at": "yesterday"}, "log.jsonl, line 2, started_at"),
        ("log", {"note": "\0"}, "NUL"),
    ],
)
def test_a_wrong_line_is_named_and_nothing_comes_in(full, stranger, table, change, said):
    content = content_of(archive(full))
    rows = content[f"{table}.jsonl"].splitlines()
    rows[1] = json.dumps({**json.loads(rows[1]), **change}).encode()
    content[f"{table}.jsonl"] = b"\n".join(rows)
    refused = fault(bring(stranger, zipped(content)))
    assert said in refused["msg"]
    assert refused["loc"] == ["file"]
    assert stranger.listed("people") == []
    assert Club.objects.get(pk=stranger.club.pk).name == "Other Hall"


OF_BOARDS = ("board", "board_revision")


@pytest.mark.parametrize(
    ("version", "tables", "fields"),
    [
        (
            1,
            ("camps", "camp_sessions", "classes"),
            {"sessions": ("in_lists", "board"), "runs": ("board", "board_revision")},
        ),
        (2, ("classes",), {"sessions": ("board",), "runs": ("board", "board_revision")}),
    ],
    ids=["before camps", "before classes"],
)
def test_an_archive_of_an_earlier_version_comes_in_too(full, stranger, version, tables, fields):
    content = content_of(archive(full))
    for table in tables:
        del content[f"{table}.jsonl"], content[f"{table}.schema.json"]
    for table, later in fields.items():
        rows = [json.loads(line) for line in content[f"{table}.jsonl"].splitlines()]
        told = ({name: value for name, value in row.items() if name not in later} for row in rows)
        content[f"{table}.jsonl"] = b"".join(json.dumps(row).encode() + b"\n" for row in told)
    count = len(content["sessions.jsonl"].splitlines())
    content["club.json"] = content["club.json"].replace(b'"version": 3', f'"version": {version}'.encode())
    answer = bring(stranger, zipped(content))
    assert answer.status_code == 200, answer.content
    assert all(answer.json()["rows"][table] == 0 for table in tables)
    assert answer.json()["rows"]["sessions"] == count


def test_what_is_no_archive_says_so(full, coach):
    good = archive(full).fp.getvalue()
    assert "empty" in fault(bring(coach, b""))["msg"]
    assert "no zip" in fault(bring(coach, b"not a zip at all"))["msg"]
    assert "torn" in fault(bring(coach, good[: len(good) // 2]))["msg"]
    assert "There is no club.json" in fault(bring(coach, zipped({"README.txt": b"hello"})))["msg"]
    content = content_of(archive(full))
    content["club.json"] = content["club.json"].replace(b'"version": 3', b'"version": 9')
    assert "yoisho-club 1 to 3 can be read" in fault(bring(coach, zipped(content)))["msg"]
    content["club.json"] = b"[]"
    assert "club.json" in fault(bring(coach, zipped(content)))["msg"]


def test_only_the_owner_takes_a_club_out_or_brings_one_in(coach):
    User.objects.filter(pk=coach.user.pk).update(role=Role.COACH)
    assert coach.get("club/records").status_code == 403
    assert bring(coach, b"x").status_code == 403


def test_the_log_is_a_table_that_a_spreadsheet_reads_and_never_runs(coach):
    saved = coach.session()
    person = coach.person("=1+1")
    body = {
        "run": run_of(saved), "person_id": person.pk, "started_at": "2026-11-01T10:00:00Z", "done_s": 230,
        "done_efforts": 8, "rpe": 9, "note": 'said "enough",\nand meant it',
    }  # fmt: skip
    assert coach.put(f"runs/{uuid4()}/log", body).status_code == 200
    answer = coach.get("records/log")
    assert answer.headers["Content-Disposition"].endswith('filename="log.csv"')
    (row,) = csv.DictReader(io.StringIO(answer.content.decode()))
    assert row["person"] == "'=1+1"
    assert (row["rpe"], row["load"], row["done_efforts"]) == ("9", "34.5", "8")
    assert row["note"] == 'said "enough",\nand meant it'


def test_planned_sessions_are_read_by_another_calendar(coach):
    Club.objects.filter(pk=coach.club.pk).update(time_zone="Europe/Oslo")
    saved = coach.session("60 x (1:00 flow)")
    person = coach.person()
    plan = {"session_id": saved["id"], "on": "2027-07-01", "at": "18:30", "people": [person.pk], "group_id": None}
    assert coach.post("planned", plan).status_code == 201
    text = coach.get("records/planned").content
    (event,) = icalendar.Calendar.from_ical(text).walk("VEVENT")
    assert event["SUMMARY"] == "Thursday"
    assert event["DTSTART"].dt.utcoffset() == timedelta(hours=2), "by the clock of the club, in summer"
    assert (event["DTSTART"].dt.hour, event["DTSTART"].dt.minute) == (18, 30)
    assert event["DTEND"].dt - event["DTSTART"].dt == timedelta(hours=1)
    assert b"BEGIN:VTIMEZONE" in text
    assert b"Runa" not in text
    assert all(len(line) <= 75 for line in text.split(b"\r\n")), "RFC 5545, 3.1"
    before = event["UID"]
    Planned.objects.update(on=date(2027, 7, 2), at=time(7), group=Group.objects.create(club=coach.club, name="Dock"))
    (event,) = icalendar.Calendar.from_ical(coach.get("records/planned").content).walk("VEVENT")
    assert event["UID"] == before
    assert event["DTSTART"].dt.hour == 7


def test_the_heart_rate_of_an_entry_goes_out_and_is_read_again(coach):
    heart = [[at, 110 + at // 20] for at in range(0, 230, 5)]
    body = {
        "run": run_of(coach.session()), "started_at": "2026-11-01T10:00:00Z", "done_s": 230, "done_efforts": 8,
        "rpe": 9, "record": {"played": [{"from_s": 0, "to_s": 230}], "heart": heart},
    }  # fmt: skip
    entry = coach.put(f"runs/{uuid4()}/log", body).json()["id"]
    rows = list(csv.reader(io.StringIO(coach.get(f"log/{entry}/heart-trace?form=csv").content.decode())))
    assert [[int(at), int(bpm)] for at, bpm in rows[1:]] == heart
    read = read_heart_file(coach.get(f"log/{entry}/heart-trace?form=tcx").content)
    assert [[round(at), round(bpm)] for at, bpm in read.heart] == heart
    assert read.started_at.isoformat() == "2026-11-01T10:00:00+00:00"
    del body["record"]
    bare = coach.put(f"runs/{uuid4()}/log", body).json()["id"]
    assert "No heart rate" in fault(coach.get(f"log/{bare}/heart-trace"))["msg"]
