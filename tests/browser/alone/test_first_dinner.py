"""A first dinner from the start word to Today, with one thumb: a press is a tap or Enter."""

from datetime import UTC, datetime, timedelta

from playwright.sync_api import expect

from tests.browser.conftest import complaints_of, free_port, served

SOON = (datetime.now(UTC).date() + timedelta(days=4)).isoformat()
MOST, MOST_MORE = 12, 10


class Thumb:
    """Presses what is on the page, and counts."""

    def __init__(self, page):
        self.page, self.presses = page, 0

    def tap(self, target):
        target.click()
        self.presses += 1

    def enter(self):
        self.page.keyboard.press("Enter")
        self.presses += 1

    def type_into(self, label, text):
        """Tap a field, and type: typing is free. What has the focus needs no tap."""
        field = self.page.get_by_label(label, exact=True)
        if not field.evaluate("field => field === document.activeElement"):
            self.tap(field)
        self.page.keyboard.type(text)

    def choose(self, label, choice):
        """A tap opens the list, a tap chooses."""
        self.page.get_by_label(label, exact=True).select_option(choice)
        self.presses += 2


def test_a_first_dinner_in_twelve_presses_and_a_fried_dish_in_ten_more(page, tmp_path):
    """A brined loin of 1.7 kg, then breasts in buttermilk, fried, from an empty machine."""
    data, port = tmp_path / "data", free_port()
    page.set_viewport_size({"width": 390, "height": 844})
    with served(data, port, is_empty=True):
        page.goto(f"http://127.0.0.1:{port}/")
        thumb = Thumb(page)
        word = (data / "start-word").read_text()
        thumb.type_into("Setup code that the program showed when it started", word)
        thumb.type_into("Username", "heron")
        thumb.type_into("Password", "smoke-and-bay-9")
        thumb.type_into("Password confirmation", "smoke-and-bay-9")
        thumb.enter()
        thumb.tap(page.get_by_role("link", name="Begin with one dish"))
        thumb.choose("What is it?", "pork-loin")
        thumb.type_into("How heavy, trimmed", "1.7 kg")
        expect(page.locator(".lines b").first).to_be_visible()  # the answer needs no date
        page.get_by_label("When is it eaten?").fill(SOON)
        thumb.presses += 1
        expect(page.locator("#id_method option", has_text="in time").first).to_be_attached()
        thumb.choose("How", "strong-brine")
        expect(page.locator("#foot")).to_contain_text("in time for")
        assert complaints_of(page) == []
        thumb.tap(page.get_by_role("button", name="Make the plan"))
        expect(page.get_by_text("Planned: Loin, boned")).to_be_visible()
        expect(page.locator("#first-heading")).to_be_visible()
        expect(page.get_by_role("link", name="The plan of Loin, boned")).to_be_visible()
        assert thumb.presses <= MOST

        thumb.presses = 0
        thumb.tap(page.get_by_role("link", name="Feasts", exact=True))
        thumb.tap(page.locator("a.feast"))
        thumb.tap(page.get_by_role("link", name="Weigh up another dish"))
        thumb.choose("What is it?", "chicken-breast")
        thumb.type_into("How heavy, trimmed", "900 g")
        thumb.tap(page.locator(".method", has_text="Buttermilk or yoghurt").locator("label"))
        thumb.choose("Cooked how?", "fry")
        thumb.tap(page.get_by_role("button", name="Make the plan"))
        expect(page.get_by_role("heading", name="Weigh out")).to_be_visible()
        assert thumb.presses <= MOST_MORE
