"""A morning with nine dishes, ticked on one page and seen on another phone."""

import json
import re
import sqlite3
from contextlib import closing

from playwright.sync_api import expect

from tests.browser.conftest import complaints_of, free_port, served, sign_in
from tests.web.test_ledger import picture

DISHES = [f"Sauce {n}" for n in range(1, 10)]
EMPTY = {
    "format": "pantry-clock/kitchen-1", "name": "Heron Wharf", "tz": "Europe/Oslo",
    "units": "imperial", "profile": "us", "cups": "us", "wake": "07:00", "sleep": "22:00",
    "cooks": 1,
}  # fmt: skip
MORNING = {
    "format": "pantry-clock/2", "name": "Nine Sauces", "serve_at": "2027-03-18T23:00",
    "tz": "Europe/London", "people": 9,
    "dishes": [{"name": name, "job": {"name": "cold-sauce", "made_g": 400.0}} for name in DISHES],
}  # fmt: skip


def tell_the_next_morning(page, address):
    """What came of the trout is told, found again, and asked for the next year."""
    page.goto(f"{address}/house/")
    page.get_by_label("The demo clock stands at").fill("2027-03-19T09:00")
    page.get_by_role("button", name="Set the clock").click()
    page.goto(f"{address}/")
    page.get_by_role("link", name="Tell Smoked trout").click()
    page.get_by_label("How salty").select_option("salty")
    page.get_by_label("How tender").select_option("tough")
    page.get_by_label("What to do differently").fill("Lighter smoke.")
    page.get_by_role("button", name="Save").click()
    photo = {"name": "trout.jpg", "mimeType": "image/jpeg", "buffer": picture()}
    page.get_by_label("A photo, up to three").set_input_files(photo)
    page.get_by_role("button", name="Keep the photo").click()
    expect(page.get_by_role("img", name="Smoked trout, photo 1")).to_be_visible()
    page.goto(f"{address}/ledger/")
    page.get_by_label("Words").fill("lighter")
    page.get_by_role("button", name="Look").click()
    expect(page.locator(".made li")).to_have_count(1)
    page.goto(f"{address}/feasts/")
    page.locator("a.feast", has_text="Heron Supper").click()
    page.goto(f"{page.url}copy/")
    page.get_by_label("To", exact=True).fill("2028-03-17")
    page.get_by_role("button", name="Copy it").click()
    expect(page.get_by_text("Lighter smoke.")).to_be_visible()
    page.get_by_role("button", name="a quarter more time").click()
    expect(page.get_by_text("Done: Give")).to_be_visible()
    assert complaints_of(page) == []


def look_at_an_empty_kitchen(page, address):
    """Its first page can be read, by day and by night."""
    page.goto(f"{address}/house/in/")
    file = {
        "name": "wharf.json",
        "mimeType": "application/json",
        "buffer": json.dumps(EMPTY).encode(),
    }
    page.get_by_label("The file").set_input_files(file)
    page.get_by_role("button", name="Open it").click()
    page.goto(f"{address}/")
    expect(page.get_by_role("heading", name="Nothing is planned")).to_be_visible()
    for scheme in ("light", "dark"):
        page.emulate_media(color_scheme=scheme)
        assert complaints_of(page) == []


def test_nine_dishes_are_ticked_on_one_page_and_seen_on_another(page, browser, tmp_path):
    port = free_port()
    address = f"http://127.0.0.1:{port}"
    with served(tmp_path / "data", port):
        sign_in(page, address)
        assert len(re.findall(rb"/Type\s*/Page\b", page.pdf(format="A4"))) == 1
        page.goto(f"{address}/feasts/in/")
        brought_in = {"name": "nine.json", "mimeType": "application/json",
                      "buffer": json.dumps(MORNING).encode()}  # fmt: skip
        page.get_by_label("The file").set_input_files(brought_in)
        page.get_by_role("button", name="Open it").click()
        page.goto(f"{address}/")
        expect(page.get_by_role("button", name="Sauce 9")).to_be_visible(timeout=60_000)
        other = browser.new_context(service_workers="block").new_page()
        sign_in(other, address)
        for n, name in enumerate(DISHES):
            page.get_by_role("button", name=name).first.click()
            expect(page.locator(".was-done li", has_text="Sauce")).to_have_count(n + 1)
        expect(other.locator(".was-done li", has_text="Sauce")).to_have_count(9, timeout=15_000)
        tell_the_next_morning(page, address)
        look_at_an_empty_kitchen(page, address)
    with closing(sqlite3.connect(tmp_path / "data" / "pantry.sqlite3")) as kept:
        begun = kept.execute(
            "SELECT name FROM feasts_event JOIN feasts_dish ON feasts_dish.id = dish_id"
            " WHERE what = 'step-started' AND name LIKE 'Sauce%'"
            " GROUP BY name ORDER BY min(feasts_event.id)"
        ).fetchall()
    assert [name for (name,) in begun] == DISHES
