"""Lists come a page at a time: a large club waits no longer for its first page than a small one."""

import pytest

from server.combinations.models import BookEntry
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


@pytest.mark.parametrize("asked", ["limit=0", "limit=201", "limit=many", "offset=-1"])
def test_an_impossible_page_is_refused_with_its_field(coach, asked):
    answer = coach.get(f"log?{asked}")
    assert answer.status_code == 422
    assert answer.json()["detail"][0]["loc"][-1] == asked.split("=")[0]


@pytest.mark.parametrize("path", ["people", "sessions", "combinations", "log", "letters"])
def test_every_list_that_grows_has_pages(coach, path):
    assert coach.get(path).json() == {"items": [], "count": 0}
