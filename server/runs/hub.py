"""Other screens that follow runs, in one process: one connection hears what changes, and all are told by it.

PostgreSQL carries the word (LISTEN and NOTIFY), so that it does not matter which of the server's processes heard it
first. Whoever follows holds a thread that waits, and nothing of the database.
"""

import logging
import queue
import threading
import time
from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import datetime
from uuid import UUID

import psycopg
from django.contrib.sessions.models import Session
from django.db import InterfaceError, OperationalError, connection
from django.utils import timezone

from server.accounts.models import User

logger = logging.getLogger(__name__)
CHANNEL = "live"
LOOK_UP_S = 0.5
"""So often the hub looks up from listening, to see whether anybody follows still."""
CHECKED_EVERY_S = 3.0
"""So often it is asked whether all who follow are still signed in to their club."""
AWAY_S = 1.0
"""Before a database that is away is tried again."""

Place = tuple[int, UUID]
"""A run, by its club."""


@dataclass(frozen=True)
class Said:
    """How a run stands."""

    at: datetime
    event: bytes
    ended: bool


@dataclass(eq=False)
class Follower:
    place: Place
    user_id: int
    session_key: str
    told: "queue.SimpleQueue[Said | None]" = field(default_factory=queue.SimpleQueue)
    """What is to be sent on; None where nothing more is."""


class Hub:
    """`said_of` gives what was said of a run last; None where there is no such run."""

    def __init__(self, said_of: Callable[[Place], Said | None]):
        self.said_of = said_of
        self.lock = threading.Lock()
        self.followers: dict[Place, set[Follower]] = {}
        self.listening = False

    def join(self, follower: Follower) -> None:
        with self.lock:
            self.followers.setdefault(follower.place, set()).add(follower)
            if not self.listening:
                self.listening = True
                threading.Thread(target=self._listen, name="live", daemon=True).start()

    def leave(self, follower: Follower) -> None:
        with self.lock:
            beside = self.followers.get(follower.place, set())
            beside.discard(follower)
            if not beside:
                self.followers.pop(follower.place, None)

    def _over(self) -> bool:
        """Whether nobody follows any more: then the thread ends, and the next who joins begins another."""
        with self.lock:
            self.listening = bool(self.followers)
            return not self.listening

    def _listen(self) -> None:
        while not self._over():
            try:
                self._hear()
            except (psycopg.OperationalError, OperationalError, InterfaceError):
                time.sleep(AWAY_S)
            except Exception:
                logger.exception("what the screens follow could not be told")
                time.sleep(AWAY_S)
            finally:
                connection.close()

    def _hear(self) -> None:
        known = connection.get_connection_params()
        parameters = {name: value for name, value in known.items() if name not in ("cursor_factory", "context")}
        with psycopg.connect(**parameters, autocommit=True) as listening:
            listening.execute(f"LISTEN {CHANNEL}")
            with self.lock:
                followed = list(self.followers)
            # Meanwhile something may have changed that nobody heard.
            self._tell(followed)
            checked = time.monotonic()
            while not self._over():
                for notice in listening.notifies(timeout=LOOK_UP_S, stop_after=1):
                    club, run_id = notice.payload.split()
                    self._tell([(int(club), UUID(run_id))])
                if time.monotonic() - checked >= CHECKED_EVERY_S:
                    checked = time.monotonic()
                    self._cut()

    def _tell(self, places: list[Place]) -> None:
        for place in places:
            with self.lock:
                beside = list(self.followers.get(place, ()))
            if not beside:
                continue
            said = self.said_of(place)
            for follower in beside:
                follower.told.put(said)

    def _cut(self) -> None:
        """Whoever has signed out, or belongs to the club no more, hears no more."""
        with self.lock:
            all_ = [each for beside in self.followers.values() for each in beside]
        known = Session.objects.filter(
            session_key__in={each.session_key for each in all_}, expire_date__gt=timezone.now()
        )
        keys = set(known.values_list("session_key", flat=True))
        members = User.objects.filter(pk__in={each.user_id for each in all_}, is_active=True)
        clubs = set(members.values_list("pk", "club_id"))
        for each in all_:
            if each.session_key not in keys or (each.user_id, each.place[0]) not in clubs:
                each.told.put(None)
