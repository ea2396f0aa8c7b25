"""The Method page, and the judgement on the bench that it explains."""

from playwright.sync_api import expect

from tests.browser.conftest import PHONE, type_pattern, verdict


def on_the_bench(page, title):
    page.get_by_role("link", name=title, exact=True).click()
    verdict(page).wait_for()


def test_the_method_shows_the_hits_and_the_misses_of_the_fit(inside):
    inside.get_by_role("link", name="Method", exact=True).click()
    fit = inside.get_by_role("region", name="The fit: published figures and this model")
    expect(fit.get_by_role("heading", name="Gastin PB (2001)").first).to_be_visible()
    expect(fit.get_by_text("Missed", exact=True).and_(fit.locator(":visible")).first).to_be_visible()
    marks = fit.get_by_role("img")
    expect(marks).to_have_count(79)
    inside.get_by_role("link", name="Known limits").click()
    expect(inside.get_by_text("No published cost per strike exists")).to_be_in_viewport()


def test_who_says_so_leads_from_the_verdict_to_the_method(inside):
    on_the_bench(inside, "Four by four")
    verdict(inside).get_by_role("link", name="Who says so").click()
    expect(inside.get_by_role("heading", name="Method", exact=True)).to_be_visible()


def test_a_method_address_opens_at_its_section(inside, live_server):
    inside.goto(f"{live_server.url}/method#safety")
    expect(inside.get_by_role("heading", name="Cautions")).to_be_in_viewport()


def test_heat_in_the_hall_speaks_stays_for_the_day_and_refuses_nonsense(inside):
    on_the_bench(inside, "Six-second bursts")
    field = verdict(inside).get_by_label("Heat in the hall today")
    field.fill("hot")
    expect(verdict(inside).get_by_text("A number from -20 to 60")).to_be_visible()
    field.fill("28,5")
    expect(verdict(inside).get_by_text("28.5 °C WBGT").first).to_be_visible()
    inside.reload()
    expect(verdict(inside).get_by_text("28.5 °C WBGT").first).to_be_visible()
    verdict(inside).get_by_label("Heat in the hall today").fill("")
    expect(verdict(inside).get_by_text("WBGT:")).to_have_count(0)


def test_the_cautions_know_the_person(inside):
    on_the_bench(inside, "Six-second bursts")
    expect(verdict(inside).get_by_text("No screening is on record")).to_be_visible()
    inside.get_by_label("for", exact=False).first.select_option(label="Dario Fenn, mixed martial artist, 77 kg")
    expect(verdict(inside).get_by_text("No screening is on record")).to_have_count(0)


def test_the_clubs_school_says_when_the_last_lactic_day_before_a_bout_is(bench):
    bench.get_by_label("for", exact=False).first.select_option(label="Ife Marlowe, boxer, 54 kg")
    type_pattern(bench, "10:00 flow; then 1:00, 8 x (30 all out) rest 0:30")
    expect(verdict(bench)).to_contain_text("12 days to the bout. The last hard lactic day is")
    verdict(bench).get_by_label("The club's last hard lactic day").select_option("14 days before")
    expect(verdict(bench)).to_contain_text("the last lactic session belongs 14 days before it")


def test_every_purpose_gets_a_proposal(inside):
    inside.get_by_role("link", name="New session").click()
    for purpose in ("sprint capacity", "lactic power", "threshold", "skill, fresh", "bout rehearsal"):
        inside.get_by_label("Purpose").select_option(label=purpose)
        inside.get_by_role("button", name="Propose", exact=True).first.click()
        inside.get_by_role("button", name="1 Put on the bench").wait_for()
        inside.keyboard.press("1")
        expect(verdict(inside).get_by_text(f"for {purpose}").first).to_be_visible()
        expect(verdict(inside).get_by_role("heading", name="On target").or_(
            verdict(inside).get_by_role("heading", name="Well aimed"))).to_be_visible()  # fmt: skip


def test_more_figures_unfold_on_a_phone(inside):
    inside.set_viewport_size(PHONE)
    on_the_bench(inside, "Four by four")
    expect(verdict(inside).get_by_text("oxygen deficit")).to_be_hidden()
    verdict(inside).get_by_text("More figures").click()
    expect(verdict(inside).get_by_text("oxygen deficit")).to_be_visible()
