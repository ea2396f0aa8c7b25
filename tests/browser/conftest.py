"""The app in a real browser, on its own server and database. Nothing may leave the origin or go wrong unseen."""

import json
import os
import time
from functools import partial
from pathlib import Path
from unittest.mock import patch

import pytest
from django.core.management import call_command
from django.db import connection
from django.test import TransactionTestCase
from playwright.sync_api import expect

from server.review.tasks import learn
from server.roster.models import Person
from tests.browser.kept import AWAY, KeptPage
from tests.demo_rows import KEPT, DemoRows
from yoisho.session.called import UNTITLED
from yoisho.session.document import Session, to_document
from yoisho.session.shorthand import read_parts

os.environ["DJANGO_ALLOW_ASYNC_UNSAFE"] = "1"
PATIENCE_MS = 40_000
"""How long something may take to show: a busy machine is no fault of the app's."""
expect.set_options(timeout=PATIENCE_MS)
DESK, PHONE = {"width": 1280, "height": 800}, {"width": 390, "height": 844}


@pytest.fixture(scope="session")
def browser_type_launch_args(browser_type_launch_args):
    # The browser's own window is drawn by pages of its own; nobody looks at them.
    window = "--disable-features=PreloadTopChromeWebUI"
    nowhere = "--host-resolver-rules=MAP * ~NOTFOUND , EXCLUDE 127.0.0.1 , EXCLUDE localhost"
    return {
        **browser_type_launch_args,
        "executable_path": os.environ["CHROMIUM"],
        "args": ["--no-sandbox", "--disable-gpu", window, nowhere],
    }


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
    """Waits until what the page has asked for is answered: it would write into the next test's hall."""
    until = time.monotonic() + at_most_s
    quiet = 0
    while quiet < 3 and time.monotonic() < until:
        with connection.cursor() as cursor:
            cursor.execute(BUSY)
            quiet = quiet + 1 if cursor.fetchone() == (0,) else 0
        time.sleep(0.02)


def empty(_case: TransactionTestCase | None = None) -> None:
    """All rows go, in one question and without locking a table: ten times as quick as Django's own way."""
    with connection.cursor() as cursor:
        tables = [table for table in connection.introspection.table_names(cursor) if table not in KEPT]
        # Tables refer to each other: they are emptied together.
        gone = "; ".join(f'DELETE FROM "{table}"' for table in tables)
        cursor.execute(f"SET session_replication_role = replica; {gone}; SET session_replication_role = origin")


@pytest.fixture(scope="session", autouse=True)
def quick_emptying():
    with patch.object(TransactionTestCase, "_fixture_teardown", empty):
        yield


def train() -> None:
    """Four weeks behind the demo hall, and what they teach of Runa."""
    call_command("load_demo", weeks=4)
    learn(Person.objects.get(name="Runa Velde"))


@pytest.fixture(scope="session")
def kept(browser, browser_context_args):
    shared = KeptPage(browser, **browser_context_args)
    with shared.watched():
        yield shared


@pytest.fixture
def page(request, kept, live_server):
    """The page that tests share, as if it were new; one of its own where a test asks for another kind of browser."""
    if request.node.get_closest_marker("browser_context_args"):
        yield request.getfixturevalue("context").new_page()
        return
    yield kept.opened()
    kept.wipe(live_server.url)


DEMO = DemoRows("demo", partial(call_command, "load_demo", weeks=0))
TRAINED = DemoRows("trained", train)


@pytest.fixture
def app(request, live_server, settings, transactional_db, page, once):
    """The demo hall is open, with weeks behind it where a test asks for `trained`; nothing is on the page yet."""
    built = Path(settings.WEB_DIST) / "index.html"
    assert built.exists(), "the front end is not built: run `make test`, which builds it"
    settings.DEMO = True
    (TRAINED if "trained" in request.fixturenames else DEMO).load(once)
    wrong: list[str] = []

    def failed(error):
        wrong.append(f"error on the page: {error}")

    def asked(request):
        if not request.url.startswith((live_server.url, "data:")):
            wrong.append(f"left the origin: {request.url}")

    page.on("pageerror", failed)
    page.on("request", asked)
    page.set_default_timeout(PATIENCE_MS)
    yield page
    if not page.is_closed():
        page.goto(f"{live_server.url}{AWAY}")
        page.remove_listener("pageerror", failed)
        page.remove_listener("request", asked)
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
def trained(inside):
    """The demo coach in the library of a hall with four weeks behind it."""
    return inside


@pytest.fixture
def bench(signed_in, live_server):
    """An empty bench."""
    signed_in.goto(f"{live_server.url}/bench")
    signed_in.get_by_role("heading", name="Nothing on the bench yet").wait_for()
    return signed_in


class Asking:
    """What the tests ask of the API beside the page."""

    def __init__(self, page, address):
        self.request, self.address = page.context.request, f"{address}/api/"
        self.request.get(f"{address}/")

    def headers(self):
        cookies = self.request.storage_state()["cookies"]
        return {"X-CSRFToken": next(each["value"] for each in cookies if each["name"] == "csrftoken")}

    def post(self, path, body):
        answer = self.request.post(self.address + path, data=body, headers=self.headers())
        assert answer.ok, answer.text()
        return answer.json()

    def last(self, path, body):
        """The last line of an answer that tells how far it is."""
        return json.loads(
            self.request.post(self.address + path, data=body, headers=self.headers()).text().splitlines()[-1]
        )

    def get(self, path):
        return self.request.get(self.address + path).json()


@pytest.fixture
def floor(signed_in, live_server):
    """Takes a typed session to the floor by the API, not over the bench: `floor("3:00 flow")` is its page."""

    def opened(line, who=None, warm=True, title=UNTITLED):
        document = to_document(Session(title, read_parts(line)))
        person_id = Person.objects.get(name=who).pk if who else None
        body = {"document": document, "target": "lactic-capacity", "person_id": person_id}
        saved = Asking(signed_in, live_server.url).post("sessions", body)
        signed_in.goto(f"{live_server.url}/floor/{saved['id']}")
        stand(signed_in, warm)
        return signed_in

    return opened


def stand(page, warm=True):
    """The clock stands ready; whether somebody is warm is answered."""
    page.get_by_test_id("clock").wait_for()
    if warm and page.get_by_text("WARM?", exact=True).count():
        page.keyboard.press("Space")
        page.get_by_text("GO", exact=True).wait_for()


def type_pattern(page, text: str, reads: bool = True) -> None:
    """Type a line into the open row, and wait until it is read (unless it cannot be)."""
    if page.get_by_label("Pattern").count() == 0:
        page.get_by_role("button", name="Add a part").click()
    page.get_by_label("Pattern").fill(text)
    if reads:
        expect(page.locator("fieldset input").first).to_be_enabled()


def verdict(page):
    return page.get_by_role("region", name="Verdict")
