"""The schools' protocols as the library shows and opens them."""

from yoisho.protocols import PROTOCOLS


def protocols(coach):
    return {found["id"]: found for found in coach.get("protocols").json()}


def test_every_protocol_is_listed_with_its_versions_drawn_and_explained(coach):
    found = protocols(coach)
    assert list(found) == list(PROTOCOLS)
    for protocol in found.values():
        assert {version["scale"] for version in protocol["versions"]} >= {"beginner", "club", "fighter", "easy"}
        for version in protocol["versions"]:
            assert sum(block["seconds"] for block in version["blocks"]) == version["total_s"]
            assert version["meaning"]


def test_a_version_opens_as_a_whole_session_that_can_be_judged_and_saved(coach):
    opened = coach.get("protocols/tabata/1").json()
    parts = opened["document"]["parts"]
    assert [part["purpose"] for part in parts] == ["warm-up", "lactic-capacity", "cool-down"]
    assert opened["target"] == "lactic-capacity"
    assert coach.post("evaluate", opened).status_code == 200
    assert coach.post("sessions", opened).status_code == 201


def test_lines_are_in_the_clubs_school(coach):
    coach.put("club", {"school": "body-hooks"})
    club = next(v for v in protocols(coach)["ladders"]["versions"] if v["scale"] == "club")
    assert "[8]" in club["lines"], "a rear hook to the body is an 8 there"
    assert "[4b]" not in club["lines"]


def test_what_is_not_there_says_so(coach, nobody):
    assert coach.get("protocols/none/0").status_code == 404
    assert coach.get("protocols/tabata/99").status_code == 404
    assert nobody.get("/api/protocols").status_code == 401
