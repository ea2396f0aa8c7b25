"""The same run on another screen: the device that runs it says where its clock stands; the others hear it at once."""

import json
import queue
from collections.abc import Iterator
from datetime import timedelta
from typing import Any
from uuid import UUID

from django.db import connection
from django.http import HttpRequest
from django.utils import timezone

from server.accounts.current import coach
from server.accounts.models import Club
from server.runs.hub import CHANNEL, Follower, Hub, Place, Said
from server.runs.models import LiveState, Run

STILL_HERE_S = 10.0
"""So often a word is sent where nothing happens, so that a screen that has gone is noticed."""
FORGOTTEN_AFTER = timedelta(hours=6)
SILENT_AFTER = timedelta(seconds=90)
"""A clock that runs says so every two seconds; one that is silent for so long has been left."""


def say(run: Run, state: dict[str, Any]) -> None:
    """Where the clock stands now; whoever follows hears of it. Of a run that has ended no heart rates are kept here."""
    if state.get("ended"):
        state = {**state, "people": []}
    LiveState.objects.update_or_create(run=run, defaults={"state": state, "said_at": timezone.now()})
    with connection.cursor() as cursor:
        cursor.execute("SELECT pg_notify(%s, %s)", [CHANNEL, f"{run.club_id} {run.run_id}"])


def told(live: LiveState) -> dict[str, Any]:
    """The state as others need it: with how long ago it was said, so that no two clocks need agree."""
    age_ms = (timezone.now() - live.said_at).total_seconds() * 1000
    return {"run_id": str(live.run.run_id), "age_ms": round(age_ms), "state": live.state}


def running(club: Club) -> list[LiveState]:
    since = timezone.now() - FORGOTTEN_AFTER
    found = LiveState.objects.filter(run__club=club, said_at__gte=since).select_related("run")
    return [live for live in found if not live.state.get("ended") and not _left(live)]


def _left(live: LiveState) -> bool:
    moves = live.state.get("anchor_ms") is not None
    return moves and timezone.now() - live.said_at > SILENT_AFTER


def _event(live: LiveState) -> bytes:
    return f"data: {json.dumps(told(live))}\n\n".encode()


def _said_of(place: Place) -> Said | None:
    club, run_id = place
    live = LiveState.objects.filter(run__club=club, run__run_id=run_id).select_related("run").first()
    return Said(live.said_at, _event(live), live.state.get("ended", False)) if live else None


HUB = Hub(_said_of)


def follow(request: HttpRequest, run_id: UUID, still_here_s: float = STILL_HERE_S) -> Iterator[bytes]:
    """The run's state, and every change of it, as server-sent events, until it has ended or who asks is signed out."""
    user = coach(request)
    follower = Follower((user.own_club.pk, run_id), user.pk, request.session.session_key or "")
    HUB.join(follower)
    try:
        said, before = _said_of(follower.place), None
        # Waiting may last an hour: the connection is not held meanwhile.
        connection.close()
        while said is not None:
            if said.at != before:
                yield said.event
            if said.ended:
                return
            before = said.at
            try:
                said = follower.told.get(timeout=still_here_s)
            except queue.Empty:
                yield b": still here\n\n"
    finally:
        HUB.leave(follower)
