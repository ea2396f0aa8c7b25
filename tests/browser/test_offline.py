"""Once visited, the app opens and a session runs without a network, its sounds and words with it."""

import re

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import type_pattern

pytestmark = pytest.mark.browser_context_args(service_workers="allow")


def test_the_app_can_be_installed(inside):
    manifest = inside.evaluate("fetch('/manifest.webmanifest').then((answer) => answer.json())")
    assert manifest["name"] == "Yoisho"
    assert manifest["display"] == "standalone"
    assert inside.evaluate("fetch('/icon.svg').then((answer) => answer.ok)")


def test_a_session_that_was_opened_runs_and_is_logged_without_a_network_after_a_reload(bench):
    bench.evaluate("navigator.serviceWorker.ready.then(() => true)")
    bench.get_by_label("Title").fill("Out at sea")
    type_pattern(bench, "2 x (6 power bag [1-2]) rest 0:05")
    bench.get_by_text(re.compile(r"^Total")).wait_for()
    bench.get_by_role("button", name="Run", exact=True).click()
    expect(bench.get_by_text("Called out", exact=True)).to_be_visible()
    bench.reload()
    expect(bench.get_by_text("Called out", exact=True)).to_be_visible()
    bench.context.set_offline(True)
    bench.reload()
    expect(bench.get_by_text("Called out", exact=True)).to_be_visible()
    bench.keyboard.press("Space")
    bench.keyboard.press("Space")
    for _ in range(4):
        bench.keyboard.press("n")
    bench.keyboard.press("Space")
    bench.get_by_role("heading", name="Plan and done").wait_for()
    bench.keyboard.press("5")
    bench.keyboard.press("s")
    expect(bench.get_by_text("is sent when there is a network").first).to_be_visible()
    bench.context.set_offline(False)
    expect(bench.get_by_role("listitem").first).to_contain_text("Out at sea")


def test_what_is_kept_for_runs_is_thrown_away_as_the_coach_leaves(inside):
    inside.evaluate("navigator.serviceWorker.ready.then(() => true)")
    inside.reload()
    inside.get_by_role("heading", name="Library").wait_for()
    inside.get_by_role("link", name="Run Four by four").click()
    inside.get_by_test_id("clock").wait_for()
    inside.wait_for_timeout(500)
    held = "caches.open('yoisho-runs').then((shelf) => shelf.keys()).then((keys) => keys.map((key) => key.url))"
    assert any("/run" in url for url in inside.evaluate(held))
    inside.keyboard.down("Escape")
    inside.get_by_role("button", name="Leave").wait_for()
    inside.keyboard.up("Escape")
    inside.get_by_role("button", name="Leave").click()
    inside.get_by_role("button", name="Enter as the demo coach").wait_for()
    assert not any("/run" in url for url in inside.evaluate(held))


def test_an_edit_goes_to_the_server_without_waking_the_worker_that_keeps_runs(bench):
    bench.evaluate("navigator.serviceWorker.ready.then(() => true)")
    bench.reload()
    type_pattern(bench, "3 x (7 power bag [1-2]) rest 0:05")
    bench.get_by_text(re.compile(r"^Total")).wait_for()
    asked = bench.evaluate(
        """() => performance.getEntriesByType('resource').filter(({ name }) => name.includes('/api/'))
            .map(({ name, workerMatchedSourceType }) => [name, workerMatchedSourceType])"""
    )
    by_address = {address.split("/api/")[1]: source for address, source in asked}
    assert by_address["evaluate"] == by_address["read"] == "network"
    assert by_address["me"] == "", "it may come from what is kept"
