"""What nobody needs any more goes by itself, once a night: no table grows for ever."""

from datetime import timedelta

from allauth.usersessions.models import UserSession
from django.contrib.sessions.models import Session
from django.core.management import call_command
from django.utils import timezone
from procrastinate.contrib.django import app
from procrastinate.job_context import JobContext

from server.accounts.models import Answered
from server.runs.models import LiveState
from server.runs.speech import evict
from server.sendout.models import ShareLink

JOBS_KEPT_H = 72
LIVE_KEPT = timedelta(days=1)
ANSWERS_KEPT = timedelta(days=2)
LINKS_KEPT = timedelta(days=365)
"""After their end: until then they are told among those that are over."""


def clean() -> dict[str, int]:
    """Takes away sessions that are over, where clocks stood, answers that nobody asks for again, old links and speech.

    Gives how many rows or files of each are gone.
    """
    now = timezone.now()
    call_command("clearsessions")
    ended = UserSession.objects.exclude(session_key__in=Session.objects.values("session_key"))
    over = now - LINKS_KEPT
    return {
        "sessions": ended.delete()[0],
        "clocks": LiveState.objects.filter(said_at__lt=now - LIVE_KEPT).delete()[0],
        "answers": Answered.objects.filter(at__lt=now - ANSWERS_KEPT).delete()[0],
        "links": ShareLink.objects.filter(revoked_at__lt=over).delete()[0]
        + ShareLink.objects.filter(last_day__lt=over.date()).delete()[0],
        "speech": evict(),
    }


@app.periodic(cron="37 3 * * *")
@app.task(queue="tracks", name="clean", queueing_lock="clean")
def clean_by_night(timestamp: int) -> None:
    clean()


@app.periodic(cron="47 3 * * *")
@app.task(queue="tracks", name="clean_jobs", queueing_lock="clean_jobs", pass_context=True)
async def clean_jobs(context: JobContext, timestamp: int) -> None:
    """Jobs that are done, and what was told of them."""
    await context.app.job_manager.delete_old_jobs(nb_hours=JOBS_KEPT_H, include_failed=True, include_cancelled=True)
