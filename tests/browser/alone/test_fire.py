"""A smoked and a roasted dish watched to the table, the clock set forward; one goes late.

The devices post what they read in the minutes that the clock is set forward.
"""

import json
import threading
from datetime import datetime, timedelta
from zoneinfo import ZoneInfo

from playwright.sync_api import expect

from pantry_core.dish.request import DishRequest
from pantry_core.dish.work import dish
from pantry_devices import play
from tests.browser.conftest import complaints_of, free_port, served, sign_in

BEGINS = datetime(2027, 3, 20, 16, 0, tzinfo=ZoneInfo("Europe/London"))
LOIN = {"piece": {"cut": "pork-loin", "mass_g": 1500, "thickness_mm": 60},
        "cure": {"method": "none"}, "heat": {"way": "smoke"}}  # fmt: skip
RACK = {"piece": {"cut": "lamb-rack", "mass_g": 600, "thickness_mm": 25},
        "cure": {"method": "none"}, "heat": {"way": "roast"}}  # fmt: skip
SOON = 60_000


def at_the_heat(name, decided):
    """A dish whose cooking has just begun, and all before it is done."""
    steps = dish(DishRequest.model_validate({"profile": "us", **decided})).steps
    heat = next(n for n, each in enumerate(steps) if each.kind == "cook")
    events = []
    for n, each in enumerate(steps[: heat + 1]):
        began = BEGINS - timedelta(hours=heat - n)
        told = [("step-started", began)]
        if n < heat:
            told.append(("step-ended", began + timedelta(hours=1)))
        events += [
            {"press": n + 1, "what": what, "at": at.isoformat(), "step": each.id}
            for what, at in told
        ]
    return {"name": name, **decided, "events": events}


def supper(hours):
    return {
        "format": "pantry-clock/2", "name": "Two Fires", "tz": "Europe/London", "people": 4,
        "serve_at": (BEGINS + timedelta(hours=hours)).isoformat(),
        "dishes": [at_the_heat("Smoked loin", LOIN), at_the_heat("Roast rack", RACK)],
    }  # fmt: skip


class Device:
    """A probe that is played beside the test, with its fire at hand."""

    def __init__(self, address, token, *asked):
        self.probe = None
        asked = play.parser().parse_args(
            ["probe", token, "--address", address, "--wait", "0.5", "--every", "60", *asked]
        )
        self.asked = asked
        self.thread = threading.Thread(target=self._play, daemon=True)
        self.thread.start()

    def _play(self):
        def kept(asked, rng):
            self.probe = play.Probe(asked, rng)
            return self.probe

        play.play(self.asked, kept)

    def end(self):
        self.asked.hours = 0.0
        self.thread.join(10)


def add_probe(page, address, dish_name):
    """Add a probe of two wires for a dish; its token."""
    page.goto(f"{address}/house/devices/")
    page.get_by_label("Name", exact=True).fill(f"Probe of {dish_name}")
    page.get_by_role("button", name="Add it").click()
    token = page.locator(".token code").inner_text()
    device = page.locator("section.of-day", has_text=f"Probe of {dish_name}")
    for n, what in ((1, "meat"), (2, "fire")):
        device = page.locator("section.of-day", has_text=f"Probe of {dish_name}")
        channel = device.locator("details.channel").nth(n - 1)
        if channel.get_attribute("open") is None:
            channel.locator("summary").click()
        channel.get_by_label("Where it is").select_option(what)
        channel.get_by_label("Dish", exact=True).select_option(label=dish_name)
        channel.get_by_role("button", name="Save").click()
    return token


def set_clock(page, address, at):
    page.goto(f"{address}/house/")
    page.get_by_label("The demo clock stands at").fill(f"{at:%Y-%m-%dT%H:%M}")
    page.get_by_label("From there").select_option("0")
    page.get_by_role("button", name="Set the clock").click()


def row(page, name):
    return page.locator("section.at-fire", has=page.get_by_role("link", name=name, exact=True))


def test_two_dishes_are_watched_to_the_table_and_the_late_one_is_helped(page, tmp_path):
    port = free_port()
    address = f"http://127.0.0.1:{port}"
    devices = []
    with served(tmp_path / "data", port):
        sign_in(page, address)
        page.goto(f"{address}/feasts/in/")
        page.get_by_label("The file").set_input_files(
            {"name": "two.json", "mimeType": "application/json",
             "buffer": json.dumps(supper(1.75)).encode()}
        )  # fmt: skip
        page.get_by_role("button", name="Open it").click()
        expect(page.get_by_role("heading", name="Two Fires")).to_be_visible(timeout=60_000)
        set_clock(page, address, BEGINS)
        loin, rack = (add_probe(page, address, each) for each in ("Smoked loin", "Roast rack"))
        # The loin was to smoke at 120 °C; its fire is far too low.
        slow = ("--thickness", "60", "--fire", "84", "--wind", "0")
        quick = ("--thickness", "25", "--fire", "180", "--shape", "slab")
        devices = [Device(address, loin, *slow), Device(address, rack, *quick)]
        try:
            watch(page, address, devices[0])
        finally:
            for each in devices:
                each.end()


def watch(page, address, fire):
    set_clock(page, address, BEGINS + timedelta(minutes=12))
    page.goto(f"{address}/fire/")
    smoked, roasted = row(page, "Smoked loin"), row(page, "Roast rack")
    expect(smoked.locator("polyline.read")).to_be_attached(timeout=SOON)
    expect(smoked.locator(".helps button.button").first).to_be_visible(timeout=SOON)
    assert complaints_of(page) == []
    helped = smoked.locator(".helps button.button").first
    code = helped.get_attribute("value")
    helped.click()
    expect(page.get_by_text("Written down:")).to_be_visible()
    assert code in ("hotter", "oven", "wrap", "cut")
    fire.probe.fire.wanted_c = 160.0
    for minutes, dish_row in ((50, roasted), (100, smoked)):
        set_clock(page, address, BEGINS + timedelta(minutes=minutes))
        page.goto(f"{address}/fire/")
        until_served(page, dish_row)


def until_served(page, dish_row):
    """Tick what comes next, as soon as it can be, until the dish is off the page."""
    for _ in range(20):
        if not dish_row.count():
            return
        tick = dish_row.locator(".forecast button.tick")
        expect(tick.or_(page.get_by_text("Nothing is at the heat today")).first).to_be_visible(
            timeout=SOON
        )
        if not tick.count():
            return
        with page.expect_response(lambda answer: answer.request.method == "POST"):
            tick.first.click()
        page.wait_for_load_state("networkidle")
    assert not dish_row.count()
