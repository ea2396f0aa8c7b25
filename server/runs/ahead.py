"""What a session will say is made into speech when it is saved, so that the floor need not wait for it."""

from threading import Thread
from typing import Any

from django.db import transaction

from server.runs.speech import speak
from server.sessions.models import Session
from yoisho.runs.calls import Settings, call_schedule
from yoisho.session.document import from_document
from yoisho.session.interval import SessionError


def settings_of(saved: Session | None) -> Settings:
    """What is called, as the session says; everything, once, where the session is gone."""
    said = saved.calls if saved else {}
    return Settings(frozenset(said.get("muted", ())), said.get("combination_every_s"))


def _speak_all(texts: list[str]) -> None:
    for text in texts:
        speak(text)


def on_saved(sender: type[Session], instance: Session, **_more: Any) -> None:
    try:
        calls = call_schedule(from_document(instance.document).unrolled(), settings_of(instance))
    except SessionError:
        return
    texts = sorted({call.text for call in calls})
    transaction.on_commit(lambda: Thread(target=_speak_all, args=(texts,), daemon=True).start())
