"""The picture of a feast of eight dishes at the server, and a drag of one of six in the browser.

Run it with `bin/bench passage`. It makes a kitchen of its own in a temporary folder, and serves it.
Of a drag it measures how long the page takes from a move of the pointer to where the ribbon is
drawn, and from the drop to the new plan on the page.
"""

import os
import statistics
import subprocess
import sys
import time
import urllib.error
import urllib.request

from django.core.management import call_command
from playwright.sync_api import sync_playwright

from pantry_web.demo import kitchen as demo
from pantry_web.feasts.actions.add_dish import add_dish
from pantry_web.feasts.models import Feast
from pantry_web.kitchens.models import Kitchen
from pantry_web.passage.pictures import JUST_PAST, Seen, picture, written
from pantry_web.planning.looking import ask_for_plan, feast_outlook
from pantry_web.planning.solving import work_out_plan

REPEATS = 30
SIDES = ("dough", "stock", "cold-sauce", "rice")
PORT = 8899
DRAG = """
async ribbon => {
  const box = ribbon.querySelector('.cover').getBoundingClientRect();
  const at = y => ({ bubbles: true, clientX: box.x + 9, clientY: box.y + 9 + y, button: 0 });
  ribbon.dispatchEvent(new PointerEvent('pointerdown', at(0)));
  const took = [];
  for (let y = 6; y < 36; y += 1) {
    const begun = performance.now();
    ribbon.dispatchEvent(new PointerEvent('pointermove', at(y)));
    document.querySelector('.carried').getBoundingClientRect();
    await new Promise(done => requestAnimationFrame(() => setTimeout(done)));
    took.push(performance.now() - begun);
  }
  document.dispatchEvent(new PointerEvent('pointercancel', at(0)));
  return took;
}
"""


def main() -> None:
    """Draw, then drag, and print what they took."""
    call_command("migrate", verbosity=0)
    demo.load_whole()
    kitchen = Kitchen.objects.get()
    six = Feast.objects.get(pk=1)
    _planned(six, kitchen)
    _dragged()
    for job in SIDES[: 8 - six.dishes.count()]:
        add_dish(six, job, {"job": {"name": job, "made_g": 1500.0}})
    whole = _planned(six, kitchen)
    seen = Seen(since=whole.now - JUST_PAST)
    drawing, rendering, sizes = [], [], {}
    for _ in range(REPEATS):
        begun = time.perf_counter()
        drawn = picture(whole, whole.dishes, seen)
        drawing.append(1000 * (time.perf_counter() - begun))
        begun = time.perf_counter()
        for name, each in written(drawn, whole, None, is_day=False).items():
            sizes[name] = len(each.encode())
        rendering.append(1000 * (time.perf_counter() - begun))
    print(f"{len(whole.dishes)} dishes: drawn in {statistics.median(drawing):.1f} ms, "
          f"both sizes written in {statistics.median(rendering):.1f} ms; "
          + ", ".join(f"{name} {size / 1000:.0f} kB" for name, size in sizes.items()))  # fmt: skip


def _planned(feast: Feast, kitchen: Kitchen):
    ask_for_plan(feast, kitchen, demo.STANDS_AT)
    whole = feast_outlook(feast, kitchen, demo.STANDS_AT)
    if whole.solving is None:
        return whole
    work_out_plan.call(whole.solving.pk)
    return _planned(feast, kitchen)


def _dragged() -> None:
    command = [sys.executable, "manage.py", "demo", "--port", str(PORT)]
    where = os.environ | {"PANTRY_HOSTS": "127.0.0.1"}
    with subprocess.Popen(command, env=where, stdout=subprocess.DEVNULL) as server:
        try:
            _wait()
            with sync_playwright() as play:
                args = ["--no-sandbox"] if os.geteuid() == 0 else []
                browser = play.chromium.launch(
                    executable_path="/usr/bin/chromium-headless-shell", args=args
                )
                _drag(browser.new_page(viewport={"width": 1280, "height": 800}))
        finally:
            server.kill()


def _wait() -> None:
    for _ in range(300):
        try:
            urllib.request.urlopen(f"http://127.0.0.1:{PORT}/sign-in/")
        except (urllib.error.URLError, ConnectionError):
            time.sleep(0.2)
        else:
            return


def _drag(page) -> None:
    page.goto(f"http://127.0.0.1:{PORT}/sign-in/")
    page.get_by_label("Username").fill(demo.COOK)
    page.get_by_label("Password").fill(demo.PASSWORD)
    page.get_by_role("button", name="Sign in").click()
    page.wait_for_url("**/")
    page.goto(f"http://127.0.0.1:{PORT}/feasts/1/passage/")
    page.locator("a.ribbon[data-latest]").first.wait_for(timeout=60_000)
    name = "a.ribbon[aria-label^='Bay-salted duck: Dry brine']"
    took = page.locator(name).evaluate(DRAG)
    print(f"a move of the pointer: {statistics.median(took):.1f} ms at the median, "
          f"{max(took):.1f} at most, to the next frame")  # fmt: skip
    dropped = []
    for key in ("ArrowDown", "ArrowDown", "ArrowUp", "ArrowDown", "ArrowUp", "ArrowUp"):
        page.locator(name).focus()
        before = page.locator(name).get_attribute("data-from")
        page.keyboard.press(f"Shift+{key}")
        begun = time.perf_counter()
        page.keyboard.press("Enter")
        page.wait_for_function(
            "([name, before]) => document.querySelector(name)?.dataset.from !== before",
            arg=[name, before],
        )  # fmt: skip
        dropped.append(time.perf_counter() - begun)
    print(f"from a drop to the new plan on the page: {statistics.median(dropped):.2f} s "
          f"at the median, {max(dropped):.2f} at most")  # fmt: skip


main()
