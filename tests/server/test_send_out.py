"""Out of the hall: the wall sheet, links that open a session, and what comes back by them."""

import io
import json
import os
import re
import subprocess
import zipfile
from datetime import timedelta
from threading import Thread
from unittest.mock import patch
from uuid import uuid4

import mutagen
import numpy as np
import pytest
import soundfile
from django.core.files.uploadedfile import SimpleUploadedFile
from django.core.management import call_command
from django.db import connection
from django.test import Client
from django.utils import timezone

from server.logbook.models import LogEntry
from server.runs.speech import phrase_id
from server.sendout import tasks
from server.sendout.cue_track import FORMS, track_name
from server.sendout.models import CueTrack, Music, SentBack, ShareLink
from server.sendout.music import Bed, MusicError, look
from server.sendout.tasks import make_track
from tests.core.runs.test_sound import onset
from tests.server.conftest import fault
from yoisho.runs.calls import Settings
from yoisho.runs.cues import COUNT_IN_S
from yoisho.runs.plan import Plan
from yoisho.runs.sound import AFTER_S, RATE, sound_of
from yoisho.session.document import from_document

PARTS = ("10:00 flow shadow", "8 x (20 all out bag [1-2-3]) rest 0:10", "4:00 flow shadow")


@pytest.fixture
def saved(coach):
    return coach.session(*PARTS)


def link(coach, saved, **more) -> dict:
    answer = coach.post("links", {"session_id": saved["id"], **more})
    assert answer.status_code == 201, answer.content
    return answer.json()


def token(made: dict) -> str:
    return made["address"].rsplit("/", 1)[1]


def told(saved: dict, **more) -> dict:
    return {
        "run_id": str(uuid4()), "name": "Bram", "document": saved["document"], "started_at": "2026-11-29T18:00:00Z",
        "done_s": 1070, "done_efforts": 8, "rpe": 7, "note": "Left wrist held.", **more,
    }  # fmt: skip


def send_back(made: dict, body: dict):
    return Client().post(f"/api/shared/{token(made)}/sent-back", body, content_type="application/json")


# The wall sheet


def tool(pdf: bytes, *command: str) -> bytes:
    """What a tool of poppler says of a PDF."""
    return subprocess.run([*command, "-"], input=pdf, capture_output=True, check=True).stdout


def info(pdf: bytes) -> str:
    return tool(pdf, "pdfinfo").decode()


def pages(pdf: bytes) -> int:
    return int(re.search(r"Pages:\s+(\d+)", info(pdf))[1])


def text(pdf: bytes) -> str:
    return " ".join(tool(pdf, "pdftotext", "-").decode().split())


def greys(pdf: bytes) -> list[int]:
    """Every pixel of the first page, from 0 black to 255 white."""
    stream = io.BytesIO(tool(pdf, "pdftoppm", "-r", "40", "-gray", "-f", "1", "-l", "1"))
    assert stream.readline().strip() == b"P5"
    width, height = map(int, stream.readline().split())
    stream.readline()
    pixels = list(stream.read())
    assert len(pixels) == width * height
    return pixels


def sheet(coach, saved, query: str = "") -> bytes:
    answer = coach.get(f"sessions/{saved['id']}/wall-sheet{query}")
    assert answer.status_code == 200, answer.content
    assert answer.headers["Content-Type"] == "application/pdf"
    return answer.content


def test_the_wall_sheet_is_one_page_that_can_be_read_back(coach, saved):
    pdf = sheet(coach, saved)
    assert pages(pdf) == 1
    read = text(pdf)
    for words in ("Thursday", "Lactic capacity", "8 × (20 all out bag [1-2-3]) rest 0:10", "jab, cross, lead hook",
                  "17:50 in all", "left hand", "Stop at once", "chest pain"):  # fmt: skip
        assert words.lower() in read.lower(), words


@pytest.mark.parametrize(("paper", "size"), [("a4", "595"), ("letter", "612")])
def test_it_is_as_large_as_the_paper(coach, saved, paper, size):
    assert re.search(rf"Page size:\s+{size}", info(sheet(coach, saved, f"?paper={paper}")))


def test_twelve_parts_fit_on_one_page_and_more_on_two(coach):
    part = "3 x (1:00 power bag [1-2-3-2, slip, 2]) rest 0:30"
    assert pages(sheet(coach, coach.session(*[part] * 12))) == 1
    assert pages(sheet(coach, coach.session(*[part] * 20))) == 2


def test_it_is_black_on_white_and_its_score_is_drawn(coach, saved):
    """From a bad copier nothing is grey that says anything: all that is large is black."""
    pixels = greys(sheet(coach, saved))
    assert sum(value < 60 for value in pixels) > 0.005 * len(pixels), "the bars of the score"
    assert sum(value > 240 for value in pixels) > 0.6 * len(pixels)


def test_the_code_of_the_newest_open_link_is_printed_and_none_without(coach, saved):
    bare = sheet(coach, saved)
    made = link(coach, saved)
    assert "The code opens this session" in text(sheet(coach, saved))
    assert "The code opens" not in text(bare)
    coach.client.delete(f"/api/links/{made['id']}")
    assert "The code opens" not in text(sheet(coach, saved))


def test_it_is_printed_for_somebody_by_name_and_for_no_stranger(coach, stranger, saved):
    person = coach.person(heart_rate_lowering_medication=True, mass_kg=103)
    read = text(sheet(coach, saved, f"?person_id={person.pk}"))
    assert "for Runa Velde" in read
    assert "medication" not in read.lower()
    assert coach.get(f"sessions/{saved['id']}/wall-sheet?person_id={stranger.person('Ada').pk}").status_code == 404
    assert stranger.get(f"sessions/{saved['id']}/wall-sheet").status_code == 404


# Links


def test_a_link_opens_the_session_for_whoever_has_it_with_nobodys_name(coach, saved):
    runa = coach.person()
    made = link(coach, saved, person_id=runa.pk)
    answer = Client().get(f"/api/shared/{token(made)}")
    assert answer.status_code == 200
    assert answer.headers["X-Robots-Tag"] == "noindex"
    shared = answer.json()
    assert shared["plan"]["total_s"] == 1070
    assert shared["sheet"]["parts"][1]["line"] == "8 × (20 all out bag [1-2-3]) rest 0:10"
    assert "Runa" not in answer.content.decode()
    assert shared["plan"]["person"] is None
    assert coach.get(f"sessions/{saved['id']}/links").json()[0]["openings"] == 1


def test_its_page_tells_no_search_engine_and_no_other_site(coach, saved):
    page = Client().get(f"/s/{token(link(coach, saved))}")
    assert page.headers["X-Robots-Tag"] == "noindex, nofollow"
    assert page.headers["Referrer-Policy"] == "no-referrer"


def test_a_link_cannot_be_guessed(coach, saved):
    tokens = {token(link(coach, saved)) for _ in range(5)}
    assert len(tokens) == 5
    assert all(len(each) >= 22 for each in tokens)
    assert Client().get("/api/shared/" + "A" * 24).status_code == 404


def test_a_link_that_is_over_or_taken_back_says_so_kindly(coach, saved):
    made = link(coach, saved, last_day=str(timezone.localdate()))
    assert Client().get(f"/api/shared/{token(made)}").status_code == 200, "its last day is a day on which it opens"
    ShareLink.objects.update(last_day=timezone.localdate() - timedelta(days=1))
    over = Client().get(f"/api/shared/{token(made)}")
    assert over.status_code == 410
    assert "over" in over.json()["detail"]
    assert "new one" in over.json()["detail"]
    other = link(coach, saved)
    assert coach.client.delete(f"/api/links/{other['id']}").json()["ended"] == "taken back"
    assert "taken back" in Client().get(f"/api/shared/{token(other)}").json()["detail"]


def test_a_last_day_that_is_over_is_refused(coach, saved):
    refused = coach.post("links", {"session_id": saved["id"], "last_day": "2020-01-01"})
    assert fault(refused)["loc"] == ["body", "last_day"]


def test_links_are_the_clubs_own(coach, stranger, saved):
    made = link(coach, saved)
    assert stranger.get(f"sessions/{saved['id']}/links").status_code == 404
    assert stranger.client.delete(f"/api/links/{made['id']}").status_code == 404
    assert stranger.post("links", {"session_id": saved["id"]}).status_code == 404


def test_speech_of_a_link_is_that_of_its_session_and_no_other(coach, saved, settings):
    made = link(coach, saved)
    phrases = Client().get(f"/api/shared/{token(made)}").json()["plan"]["speech"]
    own = next(iter(phrases.values()))
    settings.SPEECH.mkdir(parents=True, exist_ok=True)
    for name in (own, phrase_id("of another hall")):
        (settings.SPEECH / f"{name}.wav").write_bytes(b"RIFF")
    assert Client().get(f"/api/shared/{token(made)}/speech/{phrase_id('of another hall')}").status_code == 404
    heard = Client().get(f"/api/shared/{token(made)}/speech/{own}")
    assert heard.status_code == 200
    heard.close()


# What comes back


def test_what_an_athlete_sends_waits_until_it_is_taken_into_the_log(coach, saved):
    runa = coach.person()
    made = link(coach, saved, person_id=runa.pk)
    body = told(saved, record={"played": [{"from_s": 0, "to_s": 1070}], "heart": [[60, 121], [61, 122]]})
    assert send_back(made, body).status_code == 201
    assert LogEntry.objects.count() == 0
    (waiting,) = coach.get("sent-back").json()
    assert (waiting["name"], waiting["rpe"], waiting["done_efforts"], waiting["efforts"]) == ("Bram", 7, 8, 8)
    assert (waiting["person_id"], waiting["heart"]) == (runa.pk, 2)
    assert coach.post(f"sent-back/{waiting['id']}/take", {"person_id": runa.pk}).status_code == 200
    (entry,) = coach.listed("log")
    assert (entry["person"], entry["rpe"], entry["done_s"]) == ("Runa Velde", 7, 1070)
    assert entry["note"] == "From the athlete. Left wrist held."
    assert coach.get("sent-back").json() == []


def test_sent_twice_it_waits_once(coach, saved):
    made, body = link(coach, saved), told(saved)
    assert [send_back(made, body).status_code for _ in range(2)] == [201, 201]
    assert SentBack.objects.count() == 1


def test_what_was_begun_while_the_link_was_open_comes_back_after_its_end(coach, saved):
    made = link(coach, saved)
    ShareLink.objects.update(last_day=timezone.localdate() - timedelta(days=1))
    assert send_back(made, told(saved)).status_code == 201
    ShareLink.objects.update(last_day=None, revoked_at=timezone.now())
    assert send_back(made, told(saved)).status_code == 201
    later = told(saved, started_at=(timezone.now() + timedelta(minutes=1)).isoformat())
    assert send_back(made, later).status_code == 410


def test_it_goes_with_its_person_and_is_among_what_is_kept_of_them(coach, saved):
    runa = coach.person()
    send_back(link(coach, saved, person_id=runa.pk), told(saved))
    files = zipfile.ZipFile(io.BytesIO(coach.get(f"people/{runa.pk}/data").content))
    assert json.loads(files.read("sent_back.json"))[0]["note"] == "Left wrist held."
    assert coach.client.delete(f"/api/people/{runa.pk}/data").status_code == 204
    assert SentBack.objects.count() == 0


def test_it_outlives_its_session(coach, saved):
    made = link(coach, saved)
    send_back(made, told(saved))
    assert coach.client.delete(f"/api/sessions/{saved['id']}").status_code == 204
    (waiting,) = coach.get("sent-back").json()
    person = coach.person()
    assert coach.post(f"sent-back/{waiting['id']}/take", {"person_id": person.pk}).status_code == 200
    assert coach.listed("log")[0]["title"] == "Thursday"


@pytest.mark.parametrize(
    ("wrong", "place"),
    [({"rpe": 11}, "rpe"), ({"done_efforts": 99}, "done_efforts"), ({"document": {"version": 1}}, "document"),
     ({"note": "x" * 2000}, "note")],
)  # fmt: skip
def test_what_cannot_be_is_refused_with_its_place(coach, saved, wrong, place):
    refused = send_back(link(coach, saved), told(saved, **wrong))
    assert place in fault(refused)["loc"]
    assert SentBack.objects.count() == 0


def test_what_is_refused_on_taking_still_waits(coach, stranger, saved):
    send_back(link(coach, saved), told(saved))
    (waiting,) = coach.get("sent-back").json()
    theirs = stranger.person("Ada")
    assert coach.post(f"sent-back/{waiting['id']}/take", {"person_id": theirs.pk}).status_code == 404
    assert stranger.post(f"sent-back/{waiting['id']}/take", {"person_id": theirs.pk}).status_code == 404
    assert len(coach.get("sent-back").json()) == 1
    assert coach.client.delete(f"/api/sent-back/{waiting['id']}").status_code == 204
    assert LogEntry.objects.count() == 0


# Cue tracks


@pytest.fixture
def short(coach, settings, tmp_path):
    settings.TRACKS = tmp_path / "tracks"
    return coach.session("20 flow", "2 x (20 power bag [1-2]) rest 0:10")


def ask(coach, saved, **more) -> dict:
    answer = coach.post("tracks", {"session_id": saved["id"], **more})
    assert answer.status_code == 201, answer.content
    return answer.json()


def fetched(coach, wanted: dict) -> bytes:
    answer = coach.get(f"tracks/{wanted['id']}/file")
    assert answer.status_code == 200
    # Closed, it would close the test's own connection.
    return b"".join(answer.streaming_content)


def worker() -> None:
    """In a thread of its own: a browser test of the same process has left a loop running in this one."""

    def work_once() -> None:
        try:
            call_command("procrastinate", "worker", "--queues", "tracks", "--one-shot", verbosity=0)
        finally:
            connection.close()

    thread = Thread(target=work_once)
    thread.start()
    thread.join()


@pytest.mark.parametrize("form", FORMS)
def test_a_track_has_every_cue_of_the_floor_within_a_millisecond_in_every_format(coach, short, form):
    """Also where an encoder delays what it is given: the file says by how much, and players know."""
    calls = {"muted": ["next", "combination", "effort", "kit", "half", "time", "cue", "switch", "swap"]}
    assert coach.put(f"sessions/{short['id']}/calls", {**calls, "combination_every_s": None}).status_code == 200
    wanted = ask(coach, short, form=form)
    make_track(track_id=wanted["id"])
    samples, rate = soundfile.read(io.BytesIO(fetched(coach, wanted)), dtype="float32")
    assert rate == RATE
    assert np.abs(samples).max() < 0.99
    plan = Plan(from_document(short["document"]))
    assert len(samples) / rate == pytest.approx(COUNT_IN_S + plan.timeline.total_s + AFTER_S, abs=0.1)
    for cue in plan.cues:
        assert onset(samples, sound_of(cue.kind), cue.at_s + COUNT_IN_S) == pytest.approx(
            cue.at_s + COUNT_IN_S, abs=0.001
        ), cue


def test_what_is_called_is_heard(coach, short):
    wanted = ask(coach, short, form="flac")
    make_track(track_id=wanted["id"])
    samples, _ = soundfile.read(io.BytesIO(fetched(coach, wanted)), dtype="float32")
    plan = Plan(from_document(short["document"]))
    spoken = plan.calls(Settings())
    assert len(spoken) > 2
    for call in spoken:
        at = round((call.at_s + COUNT_IN_S) * RATE)
        assert np.abs(samples[at : at + RATE // 2]).max() > 0.2, call


@pytest.mark.parametrize("form", ["opus", "flac", "mp3"])
def test_its_parts_are_chapters(coach, short, form):
    wanted = ask(coach, short, form=form)
    make_track(track_id=wanted["id"])
    file = mutagen.File(io.BytesIO(fetched(coach, wanted)))
    if form == "mp3":
        chapters = [(tag.start_time / 1000, str(tag.sub_frames["TIT2"])) for tag in file.tags.getall("CHAP")]
        assert sorted(chapters) == [(0.0, "Part 1"), (30.0, "Part 2")]
    else:
        assert (file["CHAPTER001"], file["CHAPTER001NAME"]) == (["00:00:00.000"], ["Part 1"])
        assert (file["CHAPTER002"], file["CHAPTER002NAME"]) == (["00:00:30.000"], ["Part 2"])


@pytest.mark.django_db(transaction=True)
def test_the_worker_makes_it_and_its_progress_is_told(coach, short):
    wanted = ask(coach, short, form="wav")
    assert (wanted["state"], wanted["progress"]) == ("waiting", 0.0)
    assert coach.get(f"tracks/{wanted['id']}/file").status_code == 404
    worker()
    lines = coach.get(f"tracks/{wanted['id']}/events").streaming_content
    told = [json.loads(line[6:]) for line in lines if line.startswith(b"data")]
    assert [(each["state"], each["progress"]) for each in told] == [("done", 1.0)]
    assert fetched(coach, wanted).startswith(b"RIFF")


def test_what_is_being_made_is_not_made_twice_and_the_same_sound_is_one_file(coach, short, settings):
    first, again, other = ask(coach, short), ask(coach, short), ask(coach, short, pulse=True)
    assert first["id"] == again["id"] != other["id"]
    make_track(track_id=first["id"])
    later = ask(coach, short)
    assert later["id"] != first["id"]
    make_track(track_id=later["id"])
    assert len(list(settings.TRACKS.iterdir())) == 1


def test_one_that_is_cancelled_stops_and_leaves_nothing(coach, short, settings):
    wanted = ask(coach, short)
    with patch.object(tasks, "TOLD_EVERY_S", 0), patch.object(tasks.Moved, "__call__", autospec=True) as moved:
        told = tasks.Moved.__call__

        def then_cancelled(self, progress):
            CueTrack.objects.update(state="cancelled")
            if not self.rows.update(progress=progress):
                raise tasks.CancelledError

        moved.side_effect = then_cancelled
        assert told is moved
        make_track(track_id=wanted["id"])
    assert coach.get(f"tracks/{wanted['id']}").json()["state"] == "cancelled"
    assert list(settings.TRACKS.rglob("*")) == []
    make_track(track_id=wanted["id"])
    assert list(settings.TRACKS.rglob("*")) == [], "not taken up again either"


def test_one_whose_worker_was_killed_is_made_anew_and_is_the_same_file(coach, short, settings):
    first = ask(coach, short, form="flac")
    make_track(track_id=first["id"])
    sound = fetched(coach, first)
    (settings.TRACKS / track_name(CueTrack.objects.get().digest, "flac")).unlink()
    CueTrack.objects.update(state="making", progress=0.4)
    make_track(track_id=first["id"])
    assert fetched(coach, first) == sound


def test_a_full_disk_is_told_and_nothing_is_left(coach, short, settings):
    wanted = ask(coach, short)
    with patch("server.sendout.cue_track.soundfile.SoundFile", side_effect=OSError(28, "No space left on device")):
        make_track(track_id=wanted["id"])
    told = coach.get(f"tracks/{wanted['id']}").json()
    assert told["state"] == "failed"
    assert "No space left on device" in told["said"]


def test_after_a_week_it_is_cleared_and_what_is_wanted_stays(coach, short, settings):
    old, fresh = ask(coach, short, form="flac"), ask(coach, short, form="wav")
    for wanted in (old, fresh):
        make_track(track_id=wanted["id"])
    week_ago = timezone.now() - timedelta(days=8)
    CueTrack.objects.filter(pk=old["id"]).update(asked_at=week_ago)
    for path in settings.TRACKS.iterdir():
        os.utime(path, (week_ago.timestamp(), week_ago.timestamp()))
    tasks.clear()
    assert [path.suffix for path in settings.TRACKS.iterdir()] == [".wav"]
    assert [each["id"] for each in coach.get(f"sessions/{short['id']}/tracks").json()] == [fresh["id"]]


def test_tracks_are_the_clubs_own(coach, stranger, short):
    wanted = ask(coach, short)
    make_track(track_id=wanted["id"])
    for path in (f"tracks/{wanted['id']}", f"tracks/{wanted['id']}/file", f"sessions/{short['id']}/tracks"):
        assert stranger.get(path).status_code == 404, path
    assert stranger.client.delete(f"/api/tracks/{wanted['id']}").status_code == 404


# Music underneath


def tune(rate: int = 44_100, seconds: float = 6.0, form: str = "FLAC") -> bytes:
    """Two channels of a hum at 220 Hz."""
    hum = 0.5 * np.sin(2 * np.pi * 220 * np.arange(round(rate * seconds)) / rate)
    out = io.BytesIO()
    soundfile.write(out, np.stack([hum, hum], axis=1), rate, format=form)
    return out.getvalue()


def bring(coach, data: bytes, name: str = "hum.flac"):
    return coach.client.post("/api/music", {"file": SimpleUploadedFile(name, data)})


@pytest.mark.parametrize("rate", [44_100, 48_000, 22_050])
def test_music_of_any_rate_lies_under_the_track_at_its_own_pitch(coach, short, rate):
    music = bring(coach, tune(rate)).json()
    assert music["seconds"] == pytest.approx(6.0)
    wanted = ask(coach, short, form="flac", music_id=music["id"])
    assert wanted["music"] == "hum.flac"
    make_track(track_id=wanted["id"])
    samples, _ = soundfile.read(io.BytesIO(fetched(coach, wanted)), dtype="float32")
    last = samples[-2 * RATE :]
    pitch = np.argmax(np.abs(np.fft.rfft(last))) * RATE / len(last)
    assert pitch == pytest.approx(220, abs=1), "it goes on after its own end, from its start"
    assert np.abs(samples).max() < 0.99
    plan = Plan(from_document(short["document"]))
    bell = next(cue for cue in plan.cues if cue.kind == "bell" and cue.at_s > 0)
    moment = bell.at_s + COUNT_IN_S
    assert onset(samples, sound_of("bell"), moment) == pytest.approx(moment, abs=0.001)


@pytest.mark.parametrize("rate", [44_100, 48_000, 22_050, 8_000])
def test_pieces_of_music_join_without_a_click_whatever_their_rate(tmp_path, rate):
    (tmp_path / "hum").write_bytes(tune(rate))
    bed = Bed(tmp_path / "hum")
    heard = np.concatenate([bed(10 * RATE) for _ in range(3)] + [bed(RATE // 3)])
    assert len(heard) == 30 * RATE + RATE // 3
    highest = np.abs(heard[RATE:]).max()
    assert np.abs(np.diff(heard[RATE:])).max() < 1.1 * highest * 2 * np.pi * 220 / RATE, (
        "no step steeper than the hum's"
    )


def test_with_music_it_is_another_file_than_without(coach, short):
    bare = ask(coach, short, form="flac")
    over = ask(coach, short, form="flac", music_id=bring(coach, tune()).json()["id"])
    assert bare["id"] != over["id"]
    for wanted in (bare, over):
        make_track(track_id=wanted["id"])
    assert fetched(coach, bare) != fetched(coach, over)


@pytest.mark.parametrize(
    ("data", "said"), [(b"", "empty"), (b"no music at all" * 50, "no music"), (tune(seconds=0.5), "the least")]
)
def test_what_is_no_music_is_refused_before_it_is_kept(coach, short, settings, data, said):
    assert said in fault(bring(coach, data))["msg"]
    assert not list(settings.TRACKS.rglob("*"))


def test_music_that_is_too_long_or_too_large_is_refused_before_it_is_kept(coach, short, settings):
    long = io.BytesIO()
    soundfile.write(long, np.zeros(8_000 * 3 * 3600, np.int16), 8_000, format="FLAC")
    assert "3.0 hours" in fault(bring(coach, long.getvalue()))["msg"]
    with pytest.raises(MusicError, match="1000 MB; 150 is the most"):
        look(io.BytesIO(b"anything"), 1_000_000_000)
    assert not list(settings.TRACKS.rglob("*"))


def test_music_is_the_clubs_own_and_goes_after_a_week(coach, stranger, short, settings):
    music = bring(coach, tune()).json()
    assert stranger.get("music").json() == []
    theirs = stranger.session()
    assert stranger.post("tracks", {"session_id": theirs["id"], "music_id": music["id"]}).status_code == 404
    week_ago = timezone.now() - timedelta(days=8)
    Music.objects.update(brought_at=week_ago)
    for path in settings.TRACKS.rglob("*"):
        os.utime(path, (week_ago.timestamp(), week_ago.timestamp()))
    tasks.clear()
    assert [path for path in settings.TRACKS.rglob("*") if path.is_file()] == []
