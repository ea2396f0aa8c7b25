"""One person's data goes out whole, and is erased without a trace."""

import io
import json
import uuid
import zipfile

import pytest
from django.apps import apps
from django.db import connection
from django.utils import timezone

from server.dossier.erase import PLACES, TOLD
from server.review.tasks import learn_person
from tests.server.conftest import run_of

NAME = "Zephyrine Quillfeather"


@pytest.fixture
def known(coach):
    """Somebody of whom everything is known, with a name that stands nowhere else."""
    today = str(timezone.localdate())
    person = coach.post("people", {"name": NAME, "birth_year": 1990, "mass_kg": 66, "level": "club"}).json()
    at = f"people/{person['id']}"
    coach.put(f"{at}/screening", {"on": today, "regularly_active": True, "known_disease": False, "symptoms": False})
    coach.put(f"{at}/clearance", {"on": today, "by": "Dr A. Holm"})
    coach.post(f"{at}/limits", {"kind": "no-kicks", "set_by": "Dr A. Holm"})
    coach.put(f"{at}/knocks/on/{today}", {})
    coach.post(f"{at}/tests", {"kind": "hr-rest", "on": today, "value": 58})
    saved = coach.session(person_id=person["id"])
    coach.post("planned", {"session_id": saved["id"], "on": today, "at": "18:00", "people": [person["id"]]})
    document = {**saved["document"], "title": f"For {NAME}"}
    coach.put(f"sessions/{saved['id']}", {**saved, "document": document})
    entry = {"run": run_of(saved, person_id=person["id"]), "person_id": person["id"], "rpe": 7, "done_s": 240,
             "started_at": timezone.now().isoformat(), "done_efforts": 8, "note": f"{NAME} was tired",
             "pain": [{"where": "wrist", "side": "left"}]}  # fmt: skip
    answer = coach.put(f"runs/{uuid.uuid4()}/log", entry)
    assert answer.status_code == 200, answer.content
    learn_person(person["id"])
    return person


def told_anywhere(word: str) -> list[str]:
    """The tables of the database in which a word stands."""
    with connection.cursor() as cursor:
        tables = connection.introspection.table_names(cursor)
        found = []
        for table in tables:
            cursor.execute(f'SELECT count(*) FROM "{table}" t WHERE t::text LIKE %s', [f"%{word}%"])
            if cursor.fetchone()[0]:
                found.append(table)
    return found


def test_everything_that_is_kept_of_somebody_goes_out_as_open_files(coach, known):
    answer = coach.get(f"people/{known['id']}/data")
    assert answer.headers["Content-Disposition"].endswith('filename="zephyrine-quillfeather.zip"')
    files = zipfile.ZipFile(io.BytesIO(answer.content))
    person = json.loads(files.read("person.json"))
    assert person["name"] == NAME
    assert person["limits"][0]["words"] == "no kicks or knees"
    assert len(person["knocks"]) == 1
    assert person["screening_active"] is True
    assert "hr-rest" in files.read("tests.csv").decode()
    assert "was tired" in files.read("log.csv").decode()
    assert len(json.loads(files.read("records.json"))) == 1
    assert json.loads(files.read("learned.json"))["logs"] == 1


def test_erased_is_erased_in_every_table_and_the_sums_stay(coach, known):
    assert len(told_anywhere(NAME)) >= 4
    load = coach.listed("log")[0]["load"]
    assert coach.client.delete(f"/api/people/{known['id']}/data").status_code == 204
    assert told_anywhere(NAME) == []
    (entry,) = coach.listed("log")
    assert (entry["load"], entry["person"], entry["note"], entry["pain"]) == (load, None, "", [])
    assert coach.get(f"people/{known['id']}").status_code == 404
    for name in ("Limit", "Knock", "FieldTest"):
        assert apps.get_model("roster", name).objects.count() == 0
    assert apps.get_model("review", "Calibration").objects.count() == 0


def test_whoever_has_the_same_name_in_another_club_keeps_it(coach, stranger, known):
    stranger.person(NAME)
    saved = stranger.session()
    stranger.put(f"sessions/{saved['id']}", {**saved, "document": {**saved["document"], "title": f"For {NAME}"}})
    coach.client.delete(f"/api/people/{known['id']}/data")
    assert stranger.listed("people")[0]["name"] == NAME
    assert stranger.listed("sessions")[0]["title"] == f"For {NAME}"


def test_every_table_that_may_hold_a_name_is_looked_through():
    """A new one is named in the table of places, or here with its reason."""
    without = {"accounts.Club", "accounts.User", "accounts.SetUpCode", "accounts.ApiToken"}
    # Numbers and where they come from, and it goes with its person.
    without |= {"review.Calibration"}
    # Chance alone, and it names its person by the roster.
    without |= {"sendout.ShareLink", "camp.CampFeed"}
    rooms = [room for room in apps.get_app_configs() if room.name.startswith("server.") and room.label != "roster"]
    held = {
        model._meta.label
        for room in rooms
        for model in room.get_models()
        if any(isinstance(field, TOLD) for field in model._meta.fields)
    }
    assert held - without == set(PLACES)


def test_nobody_elses_data_goes_with_it(coach, stranger, known):
    other = coach.person("Other")
    theirs = stranger.person("Theirs")
    coach.client.delete(f"/api/people/{known['id']}/data")
    assert [each["name"] for each in coach.listed("people")] == ["Other"]
    assert stranger.listed("people")[0]["id"] == theirs.pk
    assert coach.get(f"people/{other.pk}").status_code == 200


def test_only_the_clubs_own_are_taken_out_or_erased(stranger, known):
    assert stranger.get(f"people/{known['id']}/data").status_code == 404
    assert stranger.client.delete(f"/api/people/{known['id']}/data").status_code == 404
