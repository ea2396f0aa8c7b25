"""Speech on the floor: every call of a plan is a file, loud, short, made once; settings belong to the session."""

import errno
import io
import os
import time
import wave
from pathlib import Path
from threading import Thread

import numpy as np
import pytest
from django.core.management import call_command
from django.db import connection
from procrastinate.contrib.django.models import ProcrastinateJob
from procrastinate.exceptions import ConnectorException

from server.runs.speech import evict, is_kept, kept, name_of, phrase_id, speak, speeches
from tests.server.conftest import Coach, document, fault

LINE = "2 x (1:00 power bag [1-2-3b] switch at half) rest 0:30"


def samples(sound: bytes) -> tuple[np.ndarray, int]:
    with wave.open(io.BytesIO(sound)) as found:
        assert (found.getnchannels(), found.getsampwidth()) == (1, 2)
        return np.frombuffer(found.readframes(found.getnframes()), dtype="<i2") / 32768, found.getframerate()


def file_of(phrase: str) -> Path:
    return Path(kept().path(name_of(phrase)))


def plan(coach, saved: dict) -> dict:
    return coach.get(f"sessions/{saved['id']}/run").json()


def test_every_call_of_a_plan_is_a_file_that_can_be_fetched_and_kept(coach):
    told = plan(coach, coach.session(LINE))
    calls = told["calls"]
    assert {"next", "switch"} <= {call["kind"] for call in calls}
    for call in calls:
        answer = coach.get(f"speech/{told['speech'][call['text']]}")
        assert answer.headers["Content-Type"] == "audio/wav"
        assert "immutable" in answer.headers["Cache-Control"]
        sound, rate = samples(b"".join(answer.streaming_content))
        assert 0.2 < len(sound) / rate < 2 + 0.6 * len(call["text"].split())


def test_a_phrase_is_loud_even_and_without_clicks():
    sound, _rate = samples(file_of(speak("switch sides")).read_bytes())
    assert 0.9 < np.abs(sound).max() <= 0.96
    assert np.sqrt(np.mean(sound**2)) > 0.15, "carries in a hall"
    assert max(abs(sound[0]), abs(sound[-1])) < 0.01


def test_a_phrase_is_made_once_and_known_by_its_words():
    first = speak("half way")
    made = file_of(first).stat().st_mtime_ns
    assert speak("half way") == first == phrase_id("half way")
    assert file_of(first).stat().st_mtime_ns == made
    assert speak("half time") != first


def test_words_that_look_like_commands_are_only_said():
    assert file_of(speak("--version; rm -rf /")).stat().st_size > 5000


def test_without_a_voice_the_plan_still_runs(coach, monkeypatch):
    monkeypatch.setattr("server.runs.speech.PROGRAM", "no-such-voice")
    found = plan(coach, coach.session(LINE))
    assert found["speech"] == {}
    assert "no voice" in found["silent"]
    assert found["cues"]


def test_a_full_disk_gives_a_run_without_speech_and_says_so(coach, monkeypatch):
    def full(*_):
        raise OSError(errno.ENOSPC, os.strerror(errno.ENOSPC))

    monkeypatch.setattr("server.kept_files.Folder._save", full)
    found = plan(coach, coach.session(LINE))
    assert found["speech"] == {}
    assert "No space left" in found["silent"]
    assert found["cues"]


@pytest.mark.parametrize("phrase", ["0" * 24, "..%2f..%2fsecret", "xyz"])
def test_no_other_file_is_handed_out(coach, phrase):
    assert coach.get(f"speech/{phrase}").status_code == 404


def test_what_is_called_is_set_for_each_session(coach, stranger):
    saved = coach.session(LINE)
    chosen = {"muted": ["switch", "half"], "combination_every_s": 15}
    assert coach.put(f"sessions/{saved['id']}/calls", chosen).json() == chosen
    found = plan(coach, saved)
    assert set(found["call_settings"]["muted"]) == {"switch", "half"}
    assert "switch" in {call["kind"] for call in found["calls"]}, "the browser mutes, so that it can be undone"
    assert [call["at_s"] for call in found["calls"] if call["kind"] == "combination"][:2] == [15, 45]
    assert plan(coach, coach.session(LINE))["call_settings"] == {"muted": [], "combination_every_s": None}
    assert stranger.put(f"sessions/{saved['id']}/calls", chosen).status_code == 404
    assert fault(coach.put(f"sessions/{saved['id']}/calls", {"muted": ["shout"]}))["loc"][-2] == "muted"
    assert fault(coach.put(f"sessions/{saved['id']}/calls", {"muted": [], "combination_every_s": 1}))["loc"][-1] == (
        "combination_every_s"
    )


def work_once() -> None:
    try:
        call_command("procrastinate", "worker", "--one-shot")
    finally:
        connection.close()


def waiting_jobs(session_id: int) -> list[str]:
    lock = f"speech {session_id}"
    found = ProcrastinateJob.objects.filter(status="todo", queueing_lock=lock)
    return list(found.values_list("task_name", flat=True))


@pytest.mark.django_db(transaction=True)
def test_what_a_session_says_is_made_ahead_by_the_worker_and_asked_for_once():
    coach = Coach("Capstan Hall")
    saved = coach.session(LINE)
    for title in ("A", "B"):
        body = {"document": {**saved["document"], "title": title}, "target": "lactic-capacity"}
        assert coach.put(f"sessions/{saved['id']}", body).status_code == 200
    assert waiting_jobs(saved["id"]) == ["speak_session"]
    assert not is_kept(phrase_id("switch sides"))
    # In a thread of its own: a browser's loop may be running in this one.
    worker = Thread(target=work_once)
    worker.start()
    worker.join()
    assert is_kept(phrase_id("switch sides"))
    assert waiting_jobs(saved["id"]) == []


@pytest.mark.django_db(transaction=True)
def test_a_session_is_saved_though_nothing_can_be_queued(monkeypatch):
    def away(*_, **__):
        raise ConnectorException("the queue is away")

    monkeypatch.setattr("procrastinate.jobs.JobDeferrer.defer", away)
    assert Coach("Capstan Hall").session(LINE)["id"]


def test_a_plan_waits_no_longer_than_it_may_for_speech_and_names_what_is_still_to_come():
    found = speeches(["switch sides", "half way"], within_s=-1.0)
    assert found.missing
    assert set(found.files) == {"switch sides", "half way"}
    assert not is_kept(found.files["half way"])
    assert not speeches(["switch sides", "half way"]).missing


def test_old_speech_makes_room_for_new_and_what_is_used_stays(monkeypatch):
    speak("switch sides"), speak("half way")
    old = time.time() - 200 * 86_400
    for text in ("switch sides", "half way"):
        os.utime(file_of(phrase_id(text)), (old, old))
    speak("half way")
    assert evict() == 1
    assert is_kept(phrase_id("half way"))
    monkeypatch.setattr("server.runs.speech.MOST_BYTES", 1000)
    assert evict() == 1


def test_no_session_says_more_than_so_much(monkeypatch):
    monkeypatch.setattr("server.runs.speech.MOST_PHRASES", 2)
    assert len(speeches(["one", "two", "three", "two"]).files) == 2


def test_hard_work_before_the_warm_up_is_told_before_the_start(coach):
    assert "Hard work starts at 0:00" in plan(coach, coach.session("6 x (30 power) rest 0:30"))["cold"]
    assert plan(coach, coach.session("10:00 flow; then 1:00", "6 x (30 power) rest 0:30"))["cold"] is None


def test_the_emergency_number_is_the_clubs_own(coach):
    saved = coach.session(LINE)
    assert plan(coach, saved)["emergency_number"] == "112"
    assert coach.put("club", {"emergency_number": "999"}).json()["emergency_number"] == "999"
    assert plan(coach, saved)["emergency_number"] == "999"
    assert fault(coach.put("club", {"emergency_number": "call me"}))["loc"][-1] == "emergency_number"


def test_an_empty_session_has_a_plan_with_nothing_to_say(coach):
    saved = coach.post("sessions", {"document": document(), "target": "skill"}).json()
    assert plan(coach, saved)["calls"] == []
