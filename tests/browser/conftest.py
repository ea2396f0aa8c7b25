"""The app in a real browser, on its own server and database. Nothing may leave the origin or go wrong unseen."""

import os
import time
from pathlib import Path
from unittest.mock import patch

import pytest
from django.apps import apps
from django.core.management import CommandError, call_command
from django.core.management.color import no_style
from django.db import connection
from django.test import TransactionTestCase
from playwright.sync_api import expect

os.environ["DJANGO_ALLOW_ASYNC_UNSAFE"] = "1"
CHROMIUM = "/usr/bin/chromium"
PATIENCE_MS = 40_000
"""How long something may take to show: a busy machine is no fault of the app's."""
expect.set_options(timeout=PATIENCE_MS)
DESK, PHONE = {"width": 1280, "height": 800}, {"width": 390, "height": 844}


@pytest.fixture(scope="session")
def browser_type_launch_args(browser_type_launch_args):
    nowhere = "--host-resolver-rules=MAP * ~NOTFOUND , EXCLUDE 127.0.0.1 , EXCLUDE localhost"
    return {**browser_type_launch_args, "executable_path": CHROMIUM, "args": ["--no-sandbox", "--disable-gpu", nowhere]}


@pytest.fixture(scope="session")
def browser_context_args(browser_context_args):
    return {
        **browser_context_args,
        "viewport": DESK,
        "locale": "en-GB",
        "reduced_motion": "reduce",
        "service_workers": "block",
    }


BUSY = """
    SELECT count(*) FROM pg_stat_activity
    WHERE datname = current_database() AND pid <> pg_backend_pid() AND state <> 'idle' AND query NOT LIKE 'LISTEN%'
"""


def nobody_asks(at_most_s: float = 5.0) -> None:
    """Waits until what the page has asked for is answered: the tables are emptied next."""
    until = time.monotonic() + at_most_s
    quiet = 0
    while quiet < 3 and time.monotonic() < until:
        with connection.cursor() as cursor:
            cursor.execute(BUSY)
            quiet = quiet + 1 if cursor.fetchone() == (0,) else 0
        time.sleep(0.05)


@pytest.fixture(scope="session", autouse=True)
def patient_emptying():
    """A request that was on its way as its page closed may hold a table that is to be emptied: then once more."""
    emptied = TransactionTestCase._fixture_teardown

    def again(case):
        for _ in range(4):
            try:
                return emptied(case)
            except CommandError:
                time.sleep(0.5)
        return emptied(case)

    with patch.object(TransactionTestCase, "_fixture_teardown", again):
        yield


class DemoRows:
    """The demo hall as it is loaded once: its rows are put back for every further test, in a twentieth of the time."""

    def __init__(self) -> None:
        self.rows: dict[str, bytes] = {}

    def load(self) -> None:
        with connection.cursor() as cursor:
            if self.rows:
                self._put_back(cursor)
            else:
                call_command("load_demo")
                self._take(cursor)

    def _take(self, cursor) -> None:
        for table in connection.introspection.table_names(cursor):
            with cursor.copy(f'COPY "{table}" TO STDOUT') as out:
                rows = b"".join(out)
            if rows and not table.startswith(("django_migrations", "procrastinate")):
                self.rows[table] = rows

    def _put_back(self, cursor) -> None:
        # Tables refer to each other: the references are as right as they were.
        cursor.execute("SET session_replication_role = replica")
        for table, rows in self.rows.items():
            cursor.execute(f'DELETE FROM "{table}"')
            with cursor.copy(f'COPY "{table}" FROM STDIN') as into:
                into.write(rows)
        cursor.execute("SET session_replication_role = origin")
        for command in connection.ops.sequence_reset_sql(no_style(), apps.get_models()):
            cursor.execute(command)


DEMO = DemoRows()


@pytest.fixture
def app(live_server, settings, transactional_db, page):
    """The demo hall is open, and nothing is on the page yet."""
    built = Path(settings.WEB_DIST) / "index.html"
    assert built.exists(), "the front end is not built: run `make test`, which builds it"
    settings.DEMO = True
    DEMO.load()
    wrong: list[str] = []
    page.on("pageerror", lambda error: wrong.append(f"error on the page: {error}"))
    page.on(
        "request",
        lambda request: (
            None
            if request.url.startswith((live_server.url, "data:"))
            else wrong.append(f"left the origin: {request.url}")
        ),
    )
    page.set_default_timeout(PATIENCE_MS)
    yield page
    page.close()
    nobody_asks()
    assert wrong == []


@pytest.fixture
def hall(app, live_server):
    """A coach at the door."""
    app.goto(live_server.url)
    return app


@pytest.fixture
def signed_in(app, live_server):
    """The demo coach has entered, with no page open yet."""
    assert app.context.request.post(f"{live_server.url}/api/demo").ok
    return app


@pytest.fixture
def inside(signed_in, live_server):
    """The demo coach in the library."""
    signed_in.goto(f"{live_server.url}/library")
    signed_in.get_by_role("heading", name="Library").wait_for()
    return signed_in


@pytest.fixture
def bench(signed_in, live_server):
    """An empty bench."""
    signed_in.goto(f"{live_server.url}/bench")
    signed_in.get_by_role("heading", name="Nothing on the bench yet").wait_for()
    return signed_in


def type_pattern(page, text: str, reads: bool = True) -> None:
    """Type a line into the open row, and wait until it is read (unless it cannot be)."""
    if page.get_by_label("Pattern").count() == 0:
        page.get_by_role("button", name="Add a part").click()
    page.get_by_label("Pattern").fill(text)
    if reads:
        expect(page.locator("fieldset input").first).to_be_enabled()


def verdict(page):
    return page.get_by_role("region", name="Verdict")
