"""A camp on the screen: asked for, solved, pushed about by pointer and keys, mended, followed."""

import re
import time
from datetime import date, timedelta

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import PHONE, Asking
from tests.browser.test_roster import region
from yoisho.session.document import Part, Session, to_document
from yoisho.session.shorthand import read

SOLVED = re.compile("As it was solved")
PATIENT_MS = 60_000


def monday(weeks=0):
    today = date.today()
    return today + timedelta(days=(7 - today.weekday()) % 7, weeks=weeks)


class AskingCamps(Asking):
    def session(self, line, purpose):
        document = to_document(Session(purpose, (Part("Main set", read(line), purpose),)))
        return self.post("sessions", {"document": document, "target": purpose})["id"]

    def solved(self, **said):
        """A camp with its plan."""
        made = self.camp(**said)
        found = self.last(f"camps/{made['id']}/solve", {})["solved"]
        body = {"asked": made["asked"], "placed": found["placed"], "revision": made["revision"]}
        answer = self.request.put(f"{self.address}camps/{made['id']}", data=body, headers=self.headers())
        assert answer.ok, answer.text()
        return answer.json()

    def camp(self, **said):
        """Four weeks of two purposes whose sessions are liked: nothing has to be proposed."""
        bases = {
            "threshold": self.session("10:00 flow shadow, 4 x (3:00 combination) rest 1:30", "threshold"),
            "skill": self.session("5:00 flow shadow, 5 x (2:00 technique) rest 1:00", "skill"),
        }
        runa = next(each for each in self.get("people")["items"] if each["name"] == "Runa Velde")
        asked = {
            "start": monday().isoformat(), "bout_on": (monday(4) - timedelta(days=2)).isoformat(),
            "rule_set": "kickboxing-amateur", "most_a_week": 3, "weights": {"threshold": 2, "skill": 1},
            "days": [{"weekday": day, "at": "18:30", "minutes": 75} for day in ("mon", "tue", "thu", "sat")],
            "bases": bases, **said,
        }  # fmt: skip
        return self.post("camps", {"person_id": runa["id"], "asked": asked})


@pytest.fixture
def asking(inside, live_server):
    return AskingCamps(inside, live_server.url)


def opened(page, live_server, camp):
    page.goto(f"{live_server.url}/camp/{camp['id']}")
    page.get_by_role("heading", name=re.compile("weeks")).first.wait_for()


@pytest.fixture
def camp(inside, asking, live_server):
    """A camp that was solved, open on the page."""
    found = asking.solved()
    opened(inside, live_server, found)
    return found


def saved(page):
    """What was changed has been taken, and judged."""
    expect(page.locator("[aria-busy=true]")).to_have_count(0)


def rows(page, number=1):
    return region(page, f"Week {number}").locator("[data-uid]")


def days(asking, camp):
    return {each["uid"]: each["on"] for each in asking.get(f"camps/{camp['id']}")["placed"]}


def test_a_camp_is_made_for_somebody_solved_with_progress_and_still_there_after_a_reload(inside):
    inside.get_by_role("link", name="Camp", exact=True).click()
    expect(inside.get_by_role("heading", name="No camp yet")).to_be_visible()
    inside.get_by_role("button", name="Make the first").click()
    form = inside.get_by_role("dialog", name="New camp")
    form.get_by_label("For", exact=True).select_option(label=re.compile("Runa Velde").pattern + ", kickboxer, 61 kg")
    expect(form.get_by_label("Bout", exact=True)).not_to_have_value("")
    form.get_by_label("What", exact=True).select_option("sparring")
    form.get_by_role("button", name="Fix it").click()
    expect(form.get_by_text("Sparring, Saturday every week")).to_be_visible()
    form.get_by_role("button", name="Make it and solve").click()
    expect(inside.get_by_role("progressbar")).to_be_visible()
    expect(inside.get_by_text(SOLVED)).to_be_visible(timeout=PATIENT_MS)
    count = inside.locator("[data-piece]").count()
    assert count > 8
    inside.reload()
    expect(inside.locator("[data-piece]")).to_have_count(count)
    expect(region(inside, "Held to").get_by_text("48 hours between lactic days, all weeks.")).to_be_visible()


def test_what_cannot_be_asked_is_said_beside_its_field_and_nothing_entered_is_lost(inside):
    # The groups are there before the people: the form does not begin for a group, to begin anew for somebody.
    inside.route("**/api/people?**", lambda route: (time.sleep(1), route.continue_()))
    inside.get_by_role("link", name="Camp", exact=True).click()
    inside.get_by_role("button", name="New camp").click()
    form = inside.get_by_role("dialog", name="New camp")
    form.get_by_label("Most sessions a week").fill("5")
    # Somebody else is chosen, and back: what is known of them takes the place of what was known before, no more.
    whom = form.get_by_label("For", exact=True)
    first = whom.input_value()
    whom.select_option(value=whom.locator("option").last.get_attribute("value"))
    whom.select_option(value=first)
    form.get_by_label("Bout", exact=True).fill(monday(40).isoformat())
    form.get_by_role("button", name="Make it and solve").click()
    expect(form.get_by_role("alert")).to_contain_text("within 26 weeks")
    expect(form.get_by_label("Most sessions a week")).to_have_value("5")


def test_a_session_is_dragged_to_another_day_and_today_and_undo_follow(inside, asking, camp):
    before = days(asking, camp)
    piece = inside.locator("[data-piece]").first
    uid = piece.get_attribute("data-piece")
    box = piece.bounding_box()
    inside.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] - 4)
    inside.mouse.down()
    wide = inside.locator("[data-piece]").nth(1).bounding_box()["x"] - box["x"]
    inside.mouse.move(box["x"] + box["width"] / 2 + 2, box["y"] + box["height"] - 6)
    inside.mouse.move(box["x"] + box["width"] / 2 + max(20, wide / 2), box["y"] + box["height"] - 8, steps=4)
    inside.mouse.up()
    saved(inside)
    after = days(asking, camp)
    assert after[uid] != before[uid]
    assert {key: on for key, on in after.items() if key != uid} == {key: on for key, on in before.items() if key != uid}
    planned = asking.get(f"today?on={after[uid]}")["planned"]
    assert planned
    inside.get_by_role("button", name="Undo").click()
    saved(inside)
    assert days(asking, camp) == before


def test_keys_move_turn_lock_and_take_out_and_undo_takes_it_back(inside, asking, camp):
    row = rows(inside).first
    uid = row.get_attribute("data-uid")
    row.focus()
    before = days(asking, camp)
    inside.keyboard.press("ArrowRight")
    saved(inside)
    assert days(asking, camp)[uid] == (date.fromisoformat(before[uid]) + timedelta(days=1)).isoformat()
    inside.locator(f"[data-uid='{uid}']").focus()
    inside.keyboard.press("l")
    expect(inside.locator(f"[data-uid='{uid}']")).to_contain_text("locked")
    inside.keyboard.press("Delete")
    saved(inside)
    assert uid not in days(asking, camp)
    for _ in range(3):
        inside.keyboard.press("Control+z")
        saved(inside)
    assert days(asking, camp) == before


def test_rules_speak_at_once_of_a_day_that_is_none_and_a_nudge_mends_it(inside, camp):
    rows(inside).first.click()
    sheet = inside.get_by_role("dialog")
    sheet.get_by_label("Day").fill((monday() + timedelta(days=2)).isoformat())
    sheet.get_by_role("button", name="Close").click()
    cautions = region(inside, "Cautions")
    expect(cautions).to_contain_text("is no day of training")
    region(inside, "Nudges").get_by_role("button", name="Apply").first.click()
    saved(inside)
    expect(cautions).not_to_contain_text("is no day of training")


def test_solving_the_rest_leaves_what_is_locked_where_it_is(inside, asking, camp):
    row = rows(inside).first
    uid = row.get_attribute("data-uid")
    row.focus()
    inside.keyboard.press("ArrowRight")
    inside.keyboard.press("l")
    saved(inside)
    there = days(asking, camp)[uid]
    inside.get_by_role("button", name="Solve the rest").click()
    expect(inside.get_by_text(SOLVED)).to_be_visible(timeout=PATIENT_MS)
    saved(inside)
    assert days(asking, camp)[uid] == there


def test_where_nothing_fits_the_rules_that_clash_are_named_and_giving_way_on_one_makes_a_plan(
    inside, asking, live_server
):
    fixed = [{"purpose": "threshold", "on": (monday() + timedelta(days=by)).isoformat()} for by in (0, 1)]
    opened(inside, live_server, asking.camp(most_a_week=1, fixed=fixed))
    inside.keyboard.press("s")
    clash = inside.get_by_role("dialog", name="Nothing fits")
    expect(clash).to_contain_text("At most 1 sessions a week.", timeout=PATIENT_MS)
    expect(clash.get_by_role("button", name="Give way")).to_have_count(2)
    clash.get_by_role("button", name="Give way").first.click()
    expect(inside.get_by_text(SOLVED)).to_be_visible(timeout=PATIENT_MS)
    saved(inside)
    expect(region(inside, "Cautions")).to_contain_text("You gave way on it.")


def test_the_bout_is_moved_only_after_what_changes_was_shown(inside, asking, camp):
    inside.keyboard.press("m")
    sheet = inside.get_by_role("dialog", name="Move the bout")
    sheet.get_by_label("New day").fill((monday(5) - timedelta(days=2)).isoformat())
    sheet.get_by_role("button", name="Show what changes").click()
    expect(sheet.get_by_role("region", name="What changes")).to_contain_text("come", timeout=PATIENT_MS)
    assert asking.get(f"camps/{camp['id']}")["asked"]["bout_on"] == (monday(4) - timedelta(days=2)).isoformat()
    sheet.get_by_role("button", name="Take it").click()
    expect(inside.get_by_role("heading", name=re.compile("^Five weeks to"))).to_be_visible()
    saved(inside)
    inside.get_by_role("button", name="Undo").click()
    expect(inside.get_by_role("heading", name=re.compile("^Four weeks to"))).to_be_visible()


def test_what_was_missed_can_be_let_go_or_shifted_to_the_next_free_day(inside, asking, live_server):
    begun = date.today() - timedelta(days=date.today().weekday() + 7)
    found = asking.camp(start=begun.isoformat(), bout_on=(begun + timedelta(days=33)).isoformat())
    opened(inside, live_server, found)
    inside.get_by_role("button", name="Solve", exact=True).click()
    expect(inside.get_by_text(SOLVED)).to_be_visible(timeout=PATIENT_MS)
    saved(inside)
    inside.get_by_role("button", name="Week before").click()
    week = region(inside, "Week 1")
    # Nothing is solved onto days that are over: one is put there by hand.
    week.get_by_role("button", name=re.compile("^Add a session")).first.click()
    inside.get_by_role("dialog").get_by_role("button", name=re.compile("threshold", re.IGNORECASE)).click()
    saved(inside)
    week.locator("[data-uid]").first.click()
    now = inside.get_by_role("dialog").get_by_role("region", name="What now")
    expect(now).to_contain_text("Missed")
    now.get_by_role("button", name=re.compile("^Shift it to")).click()
    saved(inside)
    expect(region(inside, re.compile("^Week [2-5]$")).get_by_text("Missed")).to_have_count(0)
    assert min(days(asking, found).values()) >= date.today().isoformat()


def test_a_day_opens_on_the_bench_as_a_session_that_knows_its_camp(inside, camp):
    rows(inside).first.click()
    inside.get_by_role("dialog").get_by_role("link", name="Open on the Bench").click()
    expect(inside.get_by_text("Week 1 of 4")).to_be_visible()
    inside.get_by_role("link", name="camp of Runa Velde").click()
    expect(inside.get_by_role("heading", name=re.compile("^Four weeks to"))).to_be_visible()


def test_a_change_without_a_connection_is_kept_and_sent_later(inside, asking, camp):
    row = rows(inside).first
    uid = row.get_attribute("data-uid")
    before = days(asking, camp)[uid]
    inside.route("**/api/camps/*", lambda route: route.abort() if route.request.method == "PUT" else route.continue_())
    row.focus()
    inside.keyboard.press("ArrowRight")
    expect(inside.get_by_text("Your change is kept here")).to_be_visible()
    inside.unroute("**/api/camps/*")
    expect(inside.get_by_text("Your change is kept here")).to_have_count(0)
    saved(inside)
    assert days(asking, camp)[uid] == (date.fromisoformat(before) + timedelta(days=1)).isoformat()


def test_a_calendar_gets_a_secret_address_that_can_be_taken_back(inside, live_server, camp):
    inside.keyboard.press("o")
    sheet = inside.get_by_role("dialog", name=re.compile("^Send out"))
    sheet.get_by_role("button", name="Make an address").click()
    address = sheet.get_by_label(re.compile("^Address of the calendar")).input_value()
    assert inside.context.request.get(address).ok
    sheet.get_by_role("button", name="Take back").click()
    sheet.get_by_role("button", name="Yes, take it back").click()
    expect(sheet.get_by_text("1 address was taken back.")).to_be_visible()
    assert inside.context.request.get(address).status == 410


def test_on_a_phone_a_week_is_a_screen_and_the_next_is_one_key_away(inside, camp):
    inside.set_viewport_size(PHONE)
    expect(inside.locator("[data-piece]").first).not_to_be_visible()
    inside.get_by_role("button", name="Next week").click()
    expect(inside.get_by_role("heading", name=re.compile("^Week 2"))).to_be_visible()
    assert inside.evaluate("document.documentElement.scrollWidth") <= PHONE["width"]
    for box in (each.bounding_box() for each in rows(inside, 2).all()):
        assert box["height"] >= 44
