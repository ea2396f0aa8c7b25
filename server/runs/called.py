"""What is called in a session, as it says itself."""

from typing import Any

from server.sessions.models import Session
from yoisho.runs.calls import Settings, call_schedule
from yoisho.session.document import from_document
from yoisho.session.interval import SessionError


def settings_of(saved: Session | None) -> Settings:
    """What is called, as the session says; everything, once, where the session is gone."""
    return settings_said(saved.calls if saved else {})


def settings_said(said: dict[str, Any]) -> Settings:
    return Settings(frozenset(said.get("muted", ())), said.get("combination_every_s"))


def phrases_of(saved: Session) -> list[str]:
    """Everything that is called in it, each once."""
    try:
        calls = call_schedule(from_document(saved.document).unrolled(), settings_of(saved))
    except SessionError:
        return []
    return list(dict.fromkeys(call.text for call in calls))
