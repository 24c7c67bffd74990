"""The whole way on the real interface: by mouse, by keyboard, and for those who cannot see it."""

import re
from pathlib import Path

import pytest
from icalendar import Calendar
from playwright.sync_api import expect

from tests.browser.conftest import complaints_of

pytestmark = pytest.mark.browser


def test_from_the_scale_to_the_table(signed_in):
    page = signed_in
    _feast_at_an_hour_that_is_refused_first(page)
    page.get_by_label("Name of the dish").fill("Market loin")
    page.get_by_label("What is it?").select_option("Loin, boned")
    page.get_by_label("Dry cure, bagged").check()
    page.get_by_label("Curing salt").select_option("Curing salt no. 1")
    page.get_by_label("How heavy, trimmed").press_sequentially("4 lb 2 oz")
    page.get_by_label("How salty").fill("2")
    page.get_by_label("Thickest part").press_sequentially("3 yards")
    expect(page.locator("#id_thickness-message")).to_contain_text("no unit of length")
    page.get_by_label("Thickest part").fill("2 in")
    # 2 % of 1871 g, as cured loins have, is 37.4 g, less the salt in
    # 1871·150 ppm/6.25 % = 4.49 g of curing salt
    expect(page.locator(".line-salt b")).to_have_text("33.2")
    expect(page.locator(".line-curing-salt b")).to_have_text("4.49")
    expect(page.locator("#id_thickness-message")).to_be_empty()
    page.get_by_label("How long, by the recipe").fill("a fortnight and a bit")
    expect(page.locator("#id_days-message")).to_contain_text("no length of time")
    page.get_by_label("How long, by the recipe").fill("14 days")
    expect(page.locator(".stop", has_text="Too late by")).to_be_visible()
    page.get_by_label("How long, by the recipe").fill("")
    expect(page.locator(".stop", has_text="Too late by")).to_be_hidden()
    page.get_by_label("Thickest part").fill("1.5 in")
    expect(page.get_by_text("The last change")).to_be_visible()
    page.get_by_role("button", name="Make the plan").click()
    expect(page.get_by_text("It can be done: begin")).to_be_visible()

    page.get_by_role("link", name="Steps").click()
    page.get_by_role("link", name="Show it in the passage").click()
    expect(page.locator("svg.passage.wide")).to_be_visible()
    expect(page.get_by_role("row", name="Dry cure")).to_contain_text("fridge")
    with page.expect_download() as download:
        page.get_by_role("link", name="Calendar file").click()
    book = Calendar.from_ical(Path(download.value.path()).read_bytes())
    titles = [str(entry["SUMMARY"]) for entry in book.walk("VEVENT")]
    assert "Market loin: Carve" in titles
    assert len(book.walk("VALARM")) == len(titles)

    page.get_by_role("link", name="Tick off").click()
    for title in ("Buy", "Trim and weigh", "Dry cure, bagged: begin"):
        expect(page.locator("#first-heading")).to_have_text(title)
        page.get_by_role("button", name=f"Done: {title}").click()
    expect(page.locator(".steps .now")).to_contain_text("Dry cure, bagged")
    page.get_by_role("button", name="Done: Turn the bag").click()
    expect(page.locator(".log")).to_contain_text("Turned")
    page.get_by_role("button", name="Undo the last one").click()
    page.get_by_role("link", name="Mix").click()
    expect(page.get_by_text("It is in")).to_be_visible()


def _feast_at_an_hour_that_is_refused_first(page):
    page.get_by_role("link", name="New feast").click()
    page.get_by_label("What is it called?").fill("Plum Sunday")
    page.get_by_label("Date").fill("2027-03-28")
    page.get_by_label("Hour to eat").fill("01:30")
    page.get_by_role("button", name="Next: its first dish").click()
    expect(page.get_by_text("01:30 does not exist on 28 March 2027")).to_be_visible()
    expect(page.get_by_label("What is it called?")).to_have_value("Plum Sunday")
    page.get_by_label("Hour to eat").fill("18:30")
    page.get_by_role("button", name="Next: its first dish").click()


def test_a_recipe_in_cups_becomes_the_mix_and_is_weighed_out(signed_in):
    page = signed_in
    page.goto("/feasts/new/")
    page.get_by_label("What is it called?").fill("Sorrel supper")
    page.get_by_label("Date").fill("2027-04-20")
    page.get_by_label("Hour to eat").fill("19:00")
    page.get_by_role("button", name="Next: its first dish").click()
    _weigh_up(page, "Belly", "belly-skinless", "Dry cure, bagged", "1.2 kg", "40 mm")
    page.get_by_role("link", name="Use a recipe").click()
    page.get_by_label("How", exact=True).select_option("Even brine")
    text = (
        "1 qt water\n1 cup coarse salt\n1 tbsp pink salt\n2 cups pixie dust\nFor the pot:\n2 onions"
    )
    page.get_by_label("The recipe, one thing a line").press_sequentially(text)
    expect(page.get_by_text("One seasons, the other can kill")).to_be_visible()
    page.get_by_label("What is “1 cup coarse salt”?").select_option("Compact coarse salt")
    page.get_by_label("What is “1 tbsp pink salt”?").select_option("Pink rock salt")
    expect(page.get_by_text("it cures nothing and turns nothing pink")).to_be_visible()
    expect(page.get_by_text("With another salt")).to_be_visible()
    assert complaints_of(page) == []
    page.get_by_role("button", name="Use this recipe").click()
    expect(page.get_by_text("is the mix of this dish now, as it is written")).to_be_visible()
    expect(page.get_by_label("Even brine")).to_be_checked()
    # a cup of compact coarse salt is 240 g, a tablespoon of pink rock salt about 17 (practice)
    expect(page.locator(".line-salt-compact-coarse b")).to_have_text("240")
    expect(page.locator(".line-pixie-dust")).to_contain_text("2 cups pixie dust")
    expect(page.locator(".line-onion")).to_contain_text("into the pot")
    assert complaints_of(page) == []
    page.get_by_role("link", name="Weigh it out").click()
    page.get_by_role("button", name="Weighed Compact coarse salt as asked").click()
    page.get_by_text("another amount").first.click()
    page.get_by_label("Really weighed").first.fill("0.8 kg")
    page.get_by_role("button", name="Write it down").first.click()
    expect(page.get_by_text("more water")).to_be_visible()
    expect(page.get_by_text("Also in your recipe")).to_be_visible()


def test_five_dishes_collide_are_helped_and_lose_a_day(signed_in):
    page = signed_in
    page.goto("/feasts/new/")
    page.get_by_label("What is it called?").fill("Five for the orchard")
    page.get_by_label("Date").fill("2027-04-01")
    page.get_by_label("Hour to eat").fill("19:00")
    page.get_by_role("button", name="Next: its first dish").click()
    dishes = (("Orchard loin", "Loin, boned", "Dry cure, bagged", "1.2 kg", "40 mm"),
              ("Orchard duck", "Duck, whole", "Dry brine", "2 kg", "45 mm"),
              ("Orchard goat", "lamb-leg", "Buttermilk or yoghurt", "1.5 kg", "50 mm"),
              ("Orchard roots", "Firm vegetable", "Quick pickle", "800 g", "30 mm"))  # fmt: skip
    for n, (name, cut, how, mass, thick) in enumerate(dishes):
        if n:
            page.get_by_role("link", name="Five for the orchard").click()
            page.get_by_role("link", name="Weigh up another dish").click()
        _weigh_up(page, name, cut, how, mass, thick)
    page.get_by_role("link", name="Five for the orchard").click()
    page.get_by_text("A side job: dough, stock, sauce").click()
    page.get_by_label("Called", exact=True).fill("Orchard loaf")
    page.get_by_label("How much").fill("1 kg")
    page.get_by_role("button", name="Add it").click()
    expect(page.get_by_role("heading", name="Orchard loaf")).to_be_visible()
    page.get_by_role("link", name="Five for the orchard").click()
    expect(page.get_by_text("It can all be done")).to_be_visible(timeout=30_000)

    # fix the duck's roast to the night: it cannot be done, and takes no times from the others
    page.get_by_role("link", name="Orchard duck", exact=True).click()
    page.get_by_role("link", name="Steps").click()
    page.locator("summary", has_text="Roast").click()
    page.locator("[name=roast-locked_start]").fill("2027-04-01T03:00")
    page.locator("form", has=page.locator("[name=roast-locked_start]")).get_by_role(
        "button", name="Save"
    ).click()
    page.get_by_role("link", name="Five for the orchard").click()
    expect(page.get_by_text("Orchard duck cannot be done by then.")).to_be_visible(timeout=30_000)
    expect(page.get_by_text("The rest can be done")).to_be_visible()
    expect(page.get_by_text("Unlock the start of Roast")).to_be_visible(timeout=60_000)
    assert complaints_of(page) == []
    page.locator(".help", has_text="Unlock").get_by_role("button").click()
    expect(page.get_by_text("Done: Unlock the start of Roast")).to_be_visible()
    expect(page.get_by_text("It can all be done")).to_be_visible(timeout=30_000)

    # a day is lost: nobody is at home on the eve
    page.get_by_text("Something happened").click()
    page.get_by_label("Away from").fill("2027-03-31T07:00")
    page.get_by_label("until").last.fill("2027-03-31T22:30")
    page.get_by_role("button", name="We are away").click()
    page.get_by_text("being worked out").wait_for(state="detached", timeout=60_000)
    expect(page.get_by_text("This one breaks least:")).to_be_visible()
    expect(page.get_by_text("Orchard goat is ready at")).to_be_visible()
    page.get_by_role("link", name="Passage", exact=True).click()
    assert complaints_of(page) == []


def test_the_salt_moves_with_the_slider(signed_in):
    page = signed_in
    page.goto("/feasts/1/")
    expect(page.locator(".solving, [data-asks]")).to_have_count(0, timeout=30_000)
    expect(page.get_by_text("all is on the table in time")).to_be_visible()
    page.goto("/dishes/1/mix/")
    page.wait_for_load_state("networkidle")
    requests = []
    page.on("request", lambda request: requests.append(request.url))
    slider = page.get_by_label("Day", exact=True)
    heart, ring = page.locator('[data-says="heart"]'), page.locator('[data-ring="0"]').first
    slider.focus()
    page.keyboard.press("Home")
    expect(heart).to_have_text("0")
    start = float(ring.get_attribute("fill-opacity"))
    page.keyboard.press("End")
    expect(slider).to_have_attribute("aria-valuetext", re.compile(r"^day \d+\.\d$"))
    assert float(heart.inner_text()) > 1.2
    assert float(ring.get_attribute("fill-opacity")) > start + 0.3
    page.get_by_role("button", name="Play").click()
    expect(page.get_by_role("button", name="Stop")).to_be_visible()
    page.wait_for_timeout(600)
    page.get_by_role("button", name="Stop").click()
    assert 0 < int(slider.input_value()) < int(slider.get_attribute("max"))
    assert requests == []


def test_single_keys_jump_and_stay_out_of_what_is_typed(signed_in):
    page = signed_in
    page.goto("/dishes/1/steps/")
    for key, address in (("m", "mix"), ("n", "notes"), ("e", "steps"), ("k", "pantry")):
        page.keyboard.press(key)
        page.wait_for_url(f"**/{address}/")
    page.goto("/house/")
    page.get_by_label("Name", exact=True).press("f")
    assert page.url.endswith("/house/")
    page.goto("/dishes/1/steps/")
    page.keyboard.press("?")
    expect(page.get_by_role("dialog", name="Keys")).to_be_visible()
    assert complaints_of(page) == []
    page.keyboard.press("Escape")
    expect(page.get_by_role("dialog", name="Keys")).to_be_hidden()
    page.get_by_role("button", name="Keys").click()
    page.get_by_role("button", name="Close").click()
    expect(page.get_by_role("dialog", name="Keys")).to_be_hidden()


def test_by_keyboard_alone(page):
    def tab_to(label):
        for _ in range(60):
            page.keyboard.press("Tab")
            focused = page.evaluate(
                "() => { const e = document.activeElement;"
                " const l = e.labels && e.labels[0]; return (l || e).innerText.trim() }"
            )
            if focused.startswith(label):
                return
        pytest.fail(f"no way to {label} by keyboard")

    def write(label, text):
        tab_to(label)
        page.keyboard.press("ControlOrMeta+a")
        page.keyboard.type(text)

    def press(label):
        tab_to(label)
        with page.expect_navigation():
            page.keyboard.press("Enter")

    page.goto("/sign-in/")
    write("Username", "quince")
    write("Password", "lantern-night")
    press("Sign in")
    press("New feast")
    write("What is it called?", "Quiet supper")
    tab_to("Date")
    page.keyboard.type("04252027")
    press("Next: its first dish")
    write("What is it?", "Duck, whole")
    write("How heavy, trimmed", "2.1 kg")
    write("Thickest part", "60 mm")
    expect(page.locator("#methods .says").first).to_be_visible()
    tab_to("Dry brine")
    page.keyboard.press("Space")
    expect(page.get_by_text("Weigh out")).to_be_visible()
    write("Name of the dish", "Small duck")
    press("Make the plan")
    expect(page.get_by_text("It can be done")).to_be_visible()
    press("Steps")
    press("✓ Yes, go on")
    expect(page.locator(".log")).to_contain_text("Buy")
    press("Undo the last one")
    expect(page.locator(".log")).to_contain_text("Nothing yet")


PATHS = (
    "/", "/feasts/", "/feasts/new/", "/feasts/in/", "/feasts/1/", "/feasts/1/passage/",
    "/feasts/1/copy/", "/feasts/2/", "/dishes/2/steps/",
    "/feasts/2/still/?cut=pork-loin&mass=1500", "/dishes/1/mix/", "/dishes/1/passage/",
    "/dishes/1/steps/", "/dishes/1/recipe/", "/dishes/1/weighing/", "/dishes/1/cold/",
    "/dishes/1/label/", "/dishes/1/notes/", "/feasts/1/afterwards/", "/pantry/",
    "/pantry/tools/", "/house/files/", "/members/", "/shopping/", "/house/", "/no-such-page/",
)  # fmt: skip


@pytest.mark.parametrize("half", [0, 1])
def test_nothing_stands_in_anybodys_way(signed_in, half):
    for path in PATHS[half::2]:
        signed_in.set_viewport_size(PHONE)
        signed_in.goto(path)
        _looks_sound_everywhere(signed_in, path)


def test_a_dish_on_its_way_stands_in_nobodys_way(signed_in):
    page = signed_in
    page.goto("/feasts/new/")
    page.get_by_label("What is it called?").fill("Hasty supper")
    page.get_by_label("Date").fill("2027-03-20")
    page.get_by_role("button", name="Next: its first dish").click()
    _looks_sound_everywhere(page, "a dish not filled in")
    _weigh_up(page, "Hasty gammon", "gammon-flat", "Even brine", "2 kg", "70 mm")
    expect(page.get_by_text("It cannot be done by then.")).to_be_visible()
    _looks_sound_everywhere(page, "a dish with a stop, too late")
    page.get_by_role("link", name="Hasty supper").click()
    page.get_by_role("link", name="Passage").click()
    _looks_sound_everywhere(page, "no passage")
    page.context.clear_cookies()
    page.goto("/sign-in/")
    _looks_sound_everywhere(page, "sign in")


def _weigh_up(page, name, cut, how, mass, thick):
    """Say what it is and how heavy, then how, as a cook does."""
    page.get_by_label("What is it?").select_option(cut)
    page.get_by_label("How heavy, trimmed").fill(mass)
    page.get_by_label("Thickest part").fill(thick)
    page.get_by_label("Show every method").check()
    page.get_by_label(how).check()
    expect(page.get_by_role("heading", name="Weigh out")).to_be_visible()
    page.get_by_label("Name of the dish").fill(name)
    page.get_by_role("button", name="Make the plan").click()


PHONE, WALL = {"width": 390, "height": 844}, {"width": 1280, "height": 800}


def _looks_sound_everywhere(page, where):
    """Look at the page that is open on a phone by day, and on a wall at night."""
    for scheme, size in (("light", PHONE), ("dark", WALL)):
        page.emulate_media(color_scheme=scheme)
        page.set_viewport_size(size)
        _looks_sound(page, f"{where}, {scheme}")


def _looks_sound(page, where):
    assert complaints_of(page) == [], where
    wide = page.evaluate(
        "document.documentElement.scrollWidth - document.documentElement.clientWidth"
    )
    assert wide <= 0, f"{where} is wider than its window"
    if page.viewport_size["width"] < 400:
        assert page.evaluate(TOO_SMALL) == [], f"{where} has targets too small for a thumb"
        assert page.evaluate(SHIFT) < 0.05, f"{where} jumps"


TOO_SMALL = """() => [...document.querySelectorAll(
    'a, button, select, summary, textarea, input:not([type=hidden])')].filter((each) => {
  if (!each.checkVisibility({checkVisibilityCSS: true}) || each.closest('.visually-hidden, .skip'))
    return false;
  if (each.tagName === 'A' && getComputedStyle(each).display === 'inline') return false;
  let {width, height} = each.getBoundingClientRect();
  const label = ['radio', 'checkbox'].includes(each.type) && each.labels[0];
  if (label) {
    const whole = label.getBoundingClientRect();
    [width, height] = [width + whole.width, Math.max(height, whole.height)];
  }
  return width < 43.5 || height < 43.5;
}).map((each) => each.outerHTML.slice(0, 80))"""
"""Links within a sentence may be as small as it is."""
SHIFT = """() => new Promise((told) => {
  let shift = 0;
  new PerformanceObserver((list) => list.getEntries().forEach((each) => {
    shift += each.hadRecentInput ? 0 : each.value;
  })).observe({type: 'layout-shift', buffered: true});
  setTimeout(() => told(shift), 100);
})"""


def test_after_a_refused_form_the_first_wrong_field_has_the_focus(signed_in):
    page = signed_in
    page.goto("/first/")
    page.get_by_role("button", name="Make the plan").click()
    expect(page.get_by_label("What is it?")).to_be_focused()
    expect(page.locator(".refused")).to_contain_text("3 fields need another look")
    page.get_by_role("link", name="When is it eaten?").click()
    expect(page.get_by_label("When is it eaten?")).to_be_focused()


@pytest.mark.parametrize("paper", ["A4", "Letter"])
@pytest.mark.parametrize("path", ["/dishes/1/weighing/", "/dishes/1/label/"])
def test_it_is_printed_on_one_page(signed_in, path, paper):
    signed_in.goto(path)
    printed = signed_in.pdf(format=paper)
    assert len(re.findall(rb"/Type\s*/Page\b", printed)) == 1


@pytest.mark.parametrize(("size", "screens"), [(PHONE, 3.0), (WALL, 1.5)])
def test_a_mix_is_short_when_nothing_objects(signed_in, size, screens):
    signed_in.set_viewport_size(size)
    signed_in.goto("/dishes/2/mix/")
    high = signed_in.evaluate("document.documentElement.scrollHeight")
    assert high <= screens * size["height"]
    grams = signed_in.locator(".lines b").first.bounding_box()
    assert grams["y"] < size["height"]  # on the first screen


def test_at_four_times_its_size_nothing_is_cut_off(signed_in):
    """1280 px at 400 % are 320 px (WCAG 2.2, 1.4.10)."""
    signed_in.set_viewport_size({"width": 320, "height": 256})
    for path in ("/", "/feasts/1/", "/dishes/2/mix/", "/dishes/2/steps/", "/shopping/", "/house/"):
        signed_in.goto(path)
        wide = signed_in.evaluate("document.documentElement.scrollWidth")
        assert wide <= 320, path
