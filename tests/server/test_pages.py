"""Lists come a page at a time: a large club waits no longer for its first page than a small one."""

from datetime import timedelta
from uuid import uuid4

import pytest
from django.db import connection
from django.test.utils import CaptureQueriesContext
from django.utils import timezone

from server.combinations.models import BookEntry
from tests.server.conftest import run_of
from yoisho.session.document import drill_to_dict
from yoisho.strikes.notation import read_drill


@pytest.fixture
def large_book(coach):
    drill = drill_to_dict(read_drill("1-2"))
    BookEntry.objects.bulk_create(
        BookEntry(club=coach.club, name=f"Entry {n:04}", drill=drill, tags=[], note="") for n in range(450)
    )


def test_a_page_holds_so_many_and_says_how_many_there_are(coach, large_book, django_assert_max_num_queries):
    with django_assert_max_num_queries(6):
        first = coach.get("combinations?limit=100").json()
    assert (len(first["items"]), first["count"]) == (100, 450)
    last = coach.get("combinations?limit=100&offset=400").json()
    assert len(last["items"]) == 50
    assert not {each["id"] for each in first["items"]} & {each["id"] for each in last["items"]}
    assert coach.get("combinations?offset=9999").json() == {"items": [], "count": 450}


def test_a_page_far_down_the_log_reads_no_more_rows_than_it_shows(coach, monkeypatch):
    saved, now = coach.session(), timezone.now()
    for number in range(6):
        began = (now - timedelta(hours=6 - number)).isoformat()
        body = {"run": run_of(saved), "started_at": began, "done_s": 230, "done_efforts": 8, "rpe": number}
        assert coach.put(f"runs/{uuid4()}/log", body).status_code == 200
    shallow = coach.get("log?limit=3&offset=2").json()
    assert [entry["rpe"] for entry in shallow["items"]] == [3, 2, 1]
    monkeypatch.setattr("server.pages.DEEP", 2)
    with CaptureQueriesContext(connection) as asked:
        assert coach.get("log?limit=3&offset=2").json() == shallow
    skipping = [each["sql"] for each in asked if "OFFSET 2" in each["sql"]]
    assert skipping
    assert all("document" not in sql and "note" not in sql for sql in skipping)


@pytest.mark.parametrize("asked", ["limit=0", "limit=201", "limit=many", "offset=-1"])
def test_an_impossible_page_is_refused_with_its_field(coach, asked):
    answer = coach.get(f"log?{asked}")
    assert answer.status_code == 422
    assert answer.json()["detail"][0]["loc"][-1] == asked.split("=")[0]


@pytest.mark.parametrize("path", ["people", "sessions", "combinations", "log", "letters"])
def test_every_list_that_grows_has_pages(coach, path):
    assert coach.get(path).json() == {"items": [], "count": 0}
