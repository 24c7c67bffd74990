"""The picture worked in: pressed, dragged and moved by keys, and what is told of it."""

import re

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import complaints_of

pytestmark = pytest.mark.browser
PASSAGE = "/feasts/1/passage/"

MISSED = """
() => [...document.querySelectorAll("svg.passage.wide a.ribbon")].filter(ribbon => {
  const cover = ribbon.querySelector(".cover");
  cover.scrollIntoView({ block: "center", behavior: "instant" });
  const box = cover.getBoundingClientRect();
  const hit = document.elementFromPoint(box.x + box.width / 2, box.y + box.height / 2);
  return hit?.closest("a.ribbon") !== ribbon;
}).map(ribbon => ribbon.ariaLabel)
"""
"""What a pointer at the middle of a ribbon does not find."""


def duck(page):
    """The dry brine of the duck: it has hours of slack."""
    return page.get_by_role("button", name=re.compile("^Bay-salted duck: Dry brine"))


def opened(page, address=PASSAGE):
    """The picture, once its plan is worked out."""
    page.goto(address)
    expect(page.locator(".solving, [hx-trigger]")).to_have_count(0, timeout=60_000)
    expect(page.locator("a.ribbon").first).to_be_visible()


def starts(page):
    return page.eval_on_selector_all(
        "a.ribbon", "all => Object.fromEntries(all.map(e => [e.dataset.step, e.dataset.from]))"
    )


def carry(page, ribbon, far):
    """Drag a ribbon so far down, and leave the button pressed."""
    ribbon.scroll_into_view_if_needed()
    box = ribbon.locator(".cover").bounding_box()
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x, y + far / 2)
    page.mouse.move(x, y + far)


def test_a_ribbon_is_dragged_dropped_and_put_back(signed_in):
    page = signed_in
    opened(page)
    before = starts(page)
    step = duck(page).get_attribute("data-step")
    carry(page, duck(page), 8)
    expect(page.locator(".carried")).to_contain_text("within its slack")
    expect(page.locator("#passage-step")).to_contain_text("It can begin", timeout=30_000)
    assert starts(page) == before
    page.mouse.up()
    moved = page.locator(".moved")
    expect(moved).to_contain_text("Dry brine of Bay-salted duck begins", timeout=30_000)
    assert int(starts(page)[step]) > int(before[step])
    expect(page.locator("#passage-live")).to_contain_text("Dry brine of Bay-salted duck begins")
    expect(duck(page)).to_be_focused()
    assert "fixed" in duck(page).get_attribute("aria-label")
    moved.get_by_role("button", name="Undo").click()
    expect(moved).to_be_hidden(timeout=30_000)
    assert starts(page) == before


def test_numbers_and_words_on_a_ribbon_are_not_in_the_way_of_a_press(signed_in):
    page = signed_in
    opened(page)
    missed = page.evaluate(MISSED)
    assert missed == []
    page.locator("a.ribbon").first.click()
    expect(page.locator("#passage-step").get_by_role("heading").first).to_be_visible()


def test_everything_that_a_pointer_does_keys_do(signed_in):
    page = signed_in
    opened(page)
    before = starts(page)
    expect(duck(page)).to_have_role("button")
    expect(duck(page)).to_have_accessible_name(
        re.compile(r"^Bay-salted duck: Dry brine, .+, Sun 21 Mar, \d\d:\d\d$")
    )
    names = page.locator("a.ribbon").evaluate_all("all => all.map(e => e.ariaLabel)")
    assert len(set(names)) == len(names)
    duck(page).focus()
    page.keyboard.press("ArrowDown")
    below = page.evaluate("document.activeElement.dataset")
    assert int(below["from"]) >= int(before[duck(page).get_attribute("data-step")])
    page.keyboard.press("ArrowUp")
    expect(duck(page)).to_be_focused()
    page.keyboard.press("ArrowRight")
    assert page.evaluate("document.activeElement.dataset.step").split(".")[0] != "3"
    page.keyboard.press("ArrowLeft")
    duck(page).focus()

    page.keyboard.press("Enter")
    told = page.locator("#passage-step")
    expect(told.get_by_role("heading", name="Dry brine")).to_be_focused()
    expect(told).to_contain_text("Slack")
    told.get_by_role("link", name="Close").click()
    expect(duck(page)).to_be_focused()

    page.keyboard.press("Shift+ArrowDown")
    page.keyboard.press("Shift+ArrowDown")
    expect(page.locator("#passage-live")).to_contain_text("Enter sets it, Escape leaves it.")
    page.keyboard.press("Escape")
    expect(page.locator(".carried")).to_have_count(0)
    page.keyboard.press("Shift+ArrowDown")
    page.keyboard.press("Enter")
    expect(page.locator(".moved")).to_be_visible(timeout=30_000)
    step = duck(page).get_attribute("data-step")
    assert int(starts(page)[step]) == int(before[step]) + 900
    page.locator(".moved").get_by_role("button", name="Undo").click()
    expect(page.locator(".moved")).to_be_hidden(timeout=30_000)

    duck(page).focus()
    page.keyboard.press("Enter")
    told.get_by_label("Begin at").fill("2027-03-17T12:00")
    told.get_by_role("button", name="Move it there").click()
    expect(told.get_by_role("alert")).to_contain_text("That hour has passed", timeout=30_000)
    expect(told.get_by_label("Begin at")).to_have_value("2027-03-17T12:00")
    assert starts(page) == before
    assert complaints_of(page) == []


def test_without_the_server_nothing_moves_and_it_says_so(signed_in):
    page = signed_in
    opened(page)
    before = starts(page)
    page.route("**/move/", lambda route: route.abort())
    duck(page).focus()
    page.keyboard.press("Shift+ArrowDown")
    page.keyboard.press("Enter")
    expect(page.locator("#passage-live")).to_contain_text("The server is away")
    assert starts(page) == before


def test_the_picture_is_one_stop_of_the_keyboard(signed_in):
    page = signed_in
    opened(page)
    stops = "document.querySelectorAll('svg.passage a.ribbon[tabindex=\"0\"]').length"
    assert page.evaluate(stops) == 1
    duck(page).focus()
    page.keyboard.press("ArrowDown")
    assert page.evaluate(stops) == 1
    assert page.evaluate("document.activeElement.getAttribute('tabindex')") == "0"
    page.keyboard.press("Tab")
    assert not page.evaluate("document.activeElement.matches('a.ribbon')")


def test_the_slider_shows_a_day_and_it_prints_on_two_pages(signed_in):
    page = signed_in
    opened(page)
    page.get_by_label("Show").fill("2")
    page.wait_for_url("**span=2**")
    opened(page, f"{PASSAGE}?day=2027-03-22")
    assert complaints_of(page) == []
    sheet = page.pdf(format="A4")
    assert len(re.findall(rb"/Type\s*/Page\b[^s]", sheet)) == 2
    opened(page)
    assert len(re.findall(rb"/Type\s*/Page\b[^s]", page.pdf(format="A4"))) == 1
