"""Cue tracks, as the worker makes them."""

import logging
import time
from collections.abc import Iterator
from datetime import timedelta

from django.utils import timezone
from procrastinate import JobContext
from procrastinate.contrib.django import app

from server.runs.called import settings_said
from server.sendout.cue_track import CancelledError, Form, kept, track_name, write_track
from server.sendout.models import CueTrack, Music
from server.sendout.music import music_name
from yoisho.runs.plan import Plan
from yoisho.session.document import from_document

logger = logging.getLogger(__name__)
KEPT = timedelta(days=7)
TOLD_EVERY_S = 0.4


class Moved:
    """Tells the row how far its track is, now and then; stops the making where somebody has cancelled it."""

    def __init__(self, track_id: int) -> None:
        self.rows = CueTrack.objects.filter(pk=track_id, state=CueTrack.State.MAKING)
        self.told_at = 0.0

    def __call__(self, progress: float) -> None:
        if time.monotonic() - self.told_at < TOLD_EVERY_S:
            return
        self.told_at = time.monotonic()
        if not self.rows.update(progress=progress):
            raise CancelledError


@app.task(queue="tracks", name="make_track")
def make_track(track_id: int) -> None:
    """Taken up again after its worker was killed it begins anew, and gives the same file."""
    unfinished = CueTrack.objects.filter(pk=track_id, state__in=(CueTrack.State.WAITING, CueTrack.State.MAKING))
    if not unfinished.update(state=CueTrack.State.MAKING, progress=0.0):
        return
    wanted = CueTrack.objects.get(pk=track_id)
    plan = Plan(from_document(wanted.document))
    form: Form = wanted.form  # type: ignore[assignment]
    called, music = settings_said(wanted.calls), wanted.music.digest if wanted.music else ""
    try:
        digest = write_track(plan, called, form, wanted.pulse, Moved(track_id), music)
    except CancelledError:
        return
    except Exception as error:
        # Whatever it was, nobody waits for a track that will not come.
        logger.exception("a cue track could not be made")
        why = getattr(error, "strerror", None) or str(error)
        said = f"The track could not be made ({why}). Try again; if it stays so, tell whoever runs the server."
        unfinished.update(state=CueTrack.State.FAILED, said=said[:300])
        return
    unfinished.update(state=CueTrack.State.DONE, progress=1.0, digest=digest)


def _files() -> Iterator[str]:
    for folder in ("", "music/"):
        try:
            yield from (f"{folder}{name}" for name in kept().listdir(folder)[1])
        except FileNotFoundError:
            continue


def clear(older_than: timedelta = KEPT) -> int:
    """Takes away tracks that were asked for long ago, and the files that no row names any more. Gives how many rows."""
    ago = timezone.now() - older_than
    gone = CueTrack.objects.filter(asked_at__lt=ago).delete()[0] + Music.objects.filter(brought_at__lt=ago).delete()[0]
    named = {track_name(row.digest, row.form) for row in CueTrack.objects.exclude(digest="")}  # type: ignore[arg-type]
    named |= {music_name(digest) for digest in Music.objects.values_list("digest", flat=True)}
    for name in _files():
        if name not in named and kept().get_modified_time(name) < ago:
            kept().delete(name)
    return gone


@app.periodic(cron="17 3 * * *")
@app.task(queue="tracks", name="clear_tracks", queueing_lock="clear_tracks")
def clear_tracks(timestamp: int) -> None:
    clear()


@app.periodic(cron="* * * * *")
@app.task(queue="tracks", name="take_up_again", queueing_lock="take_up_again", pass_context=True)
async def take_up_again(context: JobContext, timestamp: int) -> None:
    """What a worker was at when it was killed is queued again."""
    manager = context.app.job_manager
    for job in await manager.get_stalled_jobs(task_name="make_track"):
        await manager.retry_job(job)
