"""The same run on another screen: the device that runs it says where its clock stands, the others hear of it at once.

PostgreSQL carries the word (LISTEN and NOTIFY), so that it does not matter which of the server's processes hears it.
"""

import json
from collections.abc import Iterator
from datetime import timedelta
from typing import Any
from uuid import UUID

import psycopg
from django.db import connection
from django.utils import timezone

from server.accounts.models import Club
from server.runs.models import LiveState, Run

STILL_HERE_S = 10.0
"""So often a word is sent where nothing happens, so that a screen that has gone is noticed."""
FORGOTTEN_AFTER = timedelta(hours=6)
SILENT_AFTER = timedelta(seconds=90)
"""A clock that runs says so every two seconds; one that is silent for so long has been left."""


def channel_of(club: Club) -> str:
    return f"live_{club.pk}"


def say(run: Run, state: dict[str, Any]) -> None:
    """Where the clock stands now; whoever follows hears of it. Of a run that has ended no heart rates are kept here."""
    if state.get("ended"):
        state = {**state, "people": []}
    LiveState.objects.update_or_create(run=run, defaults={"state": state, "said_at": timezone.now()})
    with connection.cursor() as cursor:
        cursor.execute("SELECT pg_notify(%s, %s)", [channel_of(run.club), str(run.run_id)])


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


def _now(club: Club, run_id: UUID) -> LiveState | None:
    found = LiveState.objects.filter(run__club=club, run__run_id=run_id).select_related("run").first()
    # Waiting may last an hour: the connection is not held meanwhile.
    connection.close()
    return found


def follow(club: Club, run_id: UUID, still_here_s: float = STILL_HERE_S) -> Iterator[bytes]:
    """The run's state, and every change of it, as server-sent events, until it has ended."""
    parameters = {k: v for k, v in connection.get_connection_params().items() if k not in ("cursor_factory", "context")}
    with psycopg.connect(**parameters, autocommit=True) as listening:
        listening.execute(psycopg.sql.SQL("LISTEN {}").format(psycopg.sql.Identifier(channel_of(club))))
        live = _now(club, run_id)
        while live is not None:
            yield _event(live)
            if live.state.get("ended"):
                return
            heard = False
            while not heard:
                for notice in listening.notifies(timeout=still_here_s, stop_after=1):
                    heard = notice.payload == str(run_id)
                if not heard:
                    yield b": still here\n\n"
            live = _now(club, run_id)
