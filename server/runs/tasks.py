"""What is made ready for runs while nobody waits."""

from procrastinate.contrib.django import app

from server.runs.called import phrases_of
from server.runs.speech import evict, speeches
from server.sessions.models import Session


@app.task(queue="speech", name="speak_session")
def speak_session(session_id: int) -> None:
    """What a session will say is made into speech, so that the floor need not wait for it; old speech makes room."""
    saved = Session.objects.filter(pk=session_id).first()
    if saved is not None:
        speeches(phrases_of(saved), within_s=None)
    evict()
