"""What a session will say is asked for when it is saved, so that the floor need not wait for it."""

from typing import Any

from server.jobs.later import later
from server.runs.tasks import speak_session
from server.sessions.models import Session


def speak_later(session_id: int) -> None:
    later(speak_session, f"speech {session_id}", session_id=session_id)


def on_saved(sender: type[Session], instance: Session, **_more: Any) -> None:
    speak_later(instance.pk)
