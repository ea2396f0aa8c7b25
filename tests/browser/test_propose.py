"""Proposals: several schools side by side, within limits, taken whole or in part."""

import re

from playwright.sync_api import expect

from tests.browser.conftest import type_pattern, verdict


def proposals(page, title="Thirties and twenty-tens"):
    page.get_by_role("link", name=title, exact=True).click()
    verdict(page).wait_for()
    page.get_by_role("spinbutton", name="Minutes").fill("35")
    page.keyboard.press("Tab")
    page.get_by_role("button", name="Propose", exact=True).click()
    page.get_by_role("button", name="Back to the bench").wait_for()


def ways(page):
    return page.get_by_role("button", name=re.compile("Put on the bench"))


def test_three_to_five_schools_stand_beside_what_is_on_the_bench(inside):
    proposals(inside)
    assert 3 <= ways(inside).count() <= 5
    expect(inside.get_by_role("region", name="On the bench now")).to_contain_text("Thirties and twenty-tens")
    track = inside.get_by_role("region", name="Short on, short off")
    expect(track).to_contain_text("Source: Buchheit and Laursen 2013")
    expect(track).to_contain_text(re.compile(r"\d in 10 like this person|nearly all like this person"))
    expect(track.get_by_text(re.compile("within error|▲|▼")).first).to_be_visible()


def test_limits_are_kept_and_the_search_follows_them(inside):
    proposals(inside)
    ceiling = inside.get_by_role("spinbutton", name="Most strikes")
    ceiling.fill("900")
    inside.keyboard.press("Tab")
    expect(inside.get_by_text("Searching")).to_have_count(0)
    numbers = inside.locator(
        "section:not([aria-label='On the bench now']) dl div", has_text="Strikes"
    ).all_inner_texts()
    assert numbers
    for text in numbers:
        assert int(re.search(r"to (\d+)|about (\d+)", text)[1] or 0) <= 1300, "the ceiling holds the best guess"


def test_the_main_set_alone_is_taken_by_one_key_and_the_rest_stays(inside):
    proposals(inside)
    inside.get_by_label("Take the main set only").check()
    inside.get_by_role("heading", name=re.compile("ways to")).click()
    inside.keyboard.press("2")
    expect(inside.get_by_text("Ctrl Z brings back what was here")).to_be_visible()
    expect(inside.locator("[data-row='0']")).to_contain_text("Prepare")
    expect(inside.locator("[data-row='1']")).to_contain_text("Skill rounds")


def test_escape_goes_back_and_changes_nothing(inside):
    proposals(inside)
    inside.keyboard.press("Escape")
    expect(inside.locator("[data-row='3']")).to_contain_text("Twenty-tens")
    expect(inside.get_by_role("button", name="Saved")).to_be_visible()


def test_a_nudge_says_what_it_would_do_is_applied_and_taken_back(bench):
    bench.get_by_label("Purpose").select_option("sprint-power")
    type_pattern(bench, "10:00 flow; then 1:00, 10 x (20 all out) rest 0:30")
    nudge = bench.get_by_role("region", name="Nudges").get_by_role("listitem").first
    expect(nudge).to_contain_text("all out")
    expect(nudge).to_contain_text(re.compile(r"\d of 5.* to "))
    nudge.get_by_role("button", name="Apply").click()
    expect(bench.get_by_label("Pattern")).not_to_have_value("10:00 flow; then 1:00, 10 × (20 all out) rest 0:30")
    bench.get_by_role("button", name="Undo").click()
    expect(bench.get_by_label("Pattern")).to_have_value("10:00 flow; then 1:00, 10 × (20 all out) rest 0:30")


def test_make_it_so_applies_the_shortest_series_and_says_when_none_can(bench):
    bench.get_by_label("Purpose").select_option("sprint-power")
    type_pattern(bench, "10:00 flow; then 1:00, 10 x (20 all out) rest 0:30")
    bench.get_by_role("button", name="Make it so").click()
    expect(bench.get_by_text(re.compile(r"Done: .*Ctrl Z takes it back"))).to_be_visible()
    expect(verdict(bench).get_by_role("heading", name=re.compile("On target|Well aimed"))).to_be_visible()
    bench.get_by_role("button", name="Make it so").click()
    expect(bench.get_by_text("It trains sprint power already.")).to_be_visible()


def test_without_a_network_the_search_waits_and_the_bench_stays_usable(bench):
    type_pattern(bench, "8 x (20 all out / 10 rest)")
    bench.get_by_label("Pattern").press("Escape")
    bench.route("**/api/propose", lambda route: route.abort())
    bench.keyboard.press("p")
    expect(bench.get_by_role("button", name="Searching …")).to_be_visible()
    bench.keyboard.press("d")
    expect(bench.locator("[data-row]")).to_have_count(2)
    bench.unroute("**/api/propose")
    expect(ways(bench).first).to_be_visible()
