"""No table grows for ever: what nobody needs goes by night, and what somebody may need stays."""

import os
import time
from datetime import timedelta
from importlib.util import module_from_spec, spec_from_file_location
from pathlib import Path
from uuid import uuid4

import pytest
from allauth.usersessions.models import UserSession
from django.contrib.sessions.models import Session as SignedIn
from django.utils import timezone
from procrastinate.contrib.django import app

from server.accounts.models import Answered
from server.records.tasks import clean
from server.runs import speech
from server.runs.models import LiveState, Run
from server.sendout.models import SentBack, ShareLink
from server.sessions.models import Session
from tests.server.conftest import Coach

pytestmark = pytest.mark.django_db
ROOT = Path(__file__).resolve().parents[2]


def aged(row, name: str, days: float):
    """The row as if something of it had been so many days ago."""
    type(row).objects.filter(pk=row.pk).update(**{name: timezone.now() - timedelta(days=days)})
    return row


def clock(coach: Coach, days: float) -> LiveState:
    run = Run.objects.create(club=coach.club, run_id=uuid4(), revision=1, title="x", document={})
    return LiveState.objects.create(run=run, state={}, said_at=timezone.now() - timedelta(days=days))


def link(coach: Coach, session: Session, **said: object) -> ShareLink:
    return ShareLink.objects.create(club=coach.club, session=session, **said)


def test_only_what_nobody_needs_goes(coach, settings, tmp_path):
    settings.SPEECH = str(tmp_path)
    today = timezone.localdate()
    session = Session.objects.get(pk=coach.session()["id"])
    live, stale = clock(coach, 0.1), clock(coach, 3)
    answers = [
        aged(Answered.objects.create(user=coach.user, key=f"k{days}", asked="a", status=201, body={}), "at", days)
        for days in (0.5, 4)
    ]
    open_, for_ever = link(coach, session, last_day=today), link(coach, session)
    lately, long_ago = (link(coach, session, last_day=today - timedelta(days=days)) for days in (30, 400))
    taken_back = aged(link(coach, session), "revoked_at", 400)
    kept = SentBack.objects.create(club=coach.club, link=long_ago, run_id=uuid4(), entry={})
    over = SignedIn.objects.create(session_key="over", session_data="", expire_date=timezone.now() - timedelta(days=1))
    UserSession.objects.create(user=coach.user, ip="127.0.0.1", session_key=over.session_key)
    for name, days in (("new", 1), ("old", 200)):
        file = tmp_path / f"{name}.wav"
        file.write_bytes(b"x")
        then = time.time() - days * 86_400
        os.utime(file, (then, then))
    found = clean()
    assert found == {"sessions": 1, "clocks": 1, "answers": 1, "links": 2, "speech": 1}
    assert list(LiveState.objects.values_list("pk", flat=True)) == [live.pk]
    assert stale.run in Run.objects.all()
    assert list(Answered.objects.values_list("pk", flat=True)) == [answers[0].pk]
    assert set(ShareLink.objects.values_list("pk", flat=True)) == {open_.pk, for_ever.pk, lately.pk}
    assert taken_back.pk not in ShareLink.objects.values_list("pk", flat=True)
    kept.refresh_from_db()
    assert kept.link is None
    assert not SignedIn.objects.filter(pk=over.pk).exists()
    assert speech.kept().listdir("")[1] == ["new.wav"]
    assert coach.get("me").json()["signed_in"]


def test_it_is_done_every_night_by_itself():
    nightly = {periodic.task.name: periodic.cron for periodic in app.periodic_registry.periodic_tasks.values()}
    for name in ("clean", "clean_jobs", "clear_tracks"):
        minute, hour, *rest = nightly[name].split()
        assert (hour, rest) == ("3", ["*", "*", "*"])
        assert minute.isdigit()


def test_every_package_that_is_shipped_has_its_licence_in_the_list():
    spec = spec_from_file_location("licences", ROOT / "scripts/licences.py")
    licences = module_from_spec(spec)
    spec.loader.exec_module(licences)
    found = {each.name: each for each in licences.shipped()}
    for name in ("react", "react-router", "@dnd-kit/core", "daisyui", "@fontsource/kaisei-opti", "idb"):
        assert found[name].text, name
        assert found[name].licence in ("MIT", "ISC", "OFL-1.1")
    assert "vite" not in found
    shown = licences.page(list(found.values()))
    assert "SIL OPEN FONT LICENSE" in shown.upper()
    assert shown.startswith("Yoisho\n\nMIT License")
    assert (ROOT / "web/dist/licences.txt").read_text(encoding="utf-8") == shown
