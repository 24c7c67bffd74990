"""How soon the installed page is there when the server is away, and how soon a tick is answered.

Run it with `bin/bench offline`. It serves the demo in a temporary folder, opens Today in Debian's
Chromium, has it kept, measures ticks as a thumb sees them, stops the server and opens Today anew.
"""

import json
import os
import signal
import statistics
import subprocess
import sys
import time
from contextlib import suppress
from pathlib import Path

from playwright.sync_api import sync_playwright

from pantry_web.demo import kitchen as demo

ROOT = Path(__file__).parents[1]
PORT = 8899
REPEATS = 20
KEPT = "caches.open('pages-1').then(kept => kept.keys()).then(keys => keys.length > 9)"


def main() -> None:
    """Measure, and print what came of it as a line of JSON."""
    command = [sys.executable, "manage.py", "demo", "--port", str(PORT)]
    server = subprocess.Popen(command, cwd=ROOT, stdout=subprocess.DEVNULL, start_new_session=True)
    try:
        with sync_playwright() as playwright:
            flags = ["--no-sandbox"] if os.geteuid() == 0 else []
            browser = playwright.chromium.launch(
                executable_path="/usr/bin/chromium-headless-shell", args=flags
            )
            _measure(browser.new_context(viewport={"width": 390, "height": 844}), server)
    finally:
        with suppress(ProcessLookupError):  # it was stopped in between
            os.killpg(server.pid, signal.SIGKILL)


def _measure(context, server) -> None:
    page = context.new_page()
    address = f"http://127.0.0.1:{PORT}/"
    for _ in range(300):
        try:
            page.goto(address)
            break
        except Exception:  # noqa: BLE001 - it is not there yet
            time.sleep(0.2)
    page.fill("input[name=username]", demo.COOK)
    page.fill("input[name=password]", demo.PASSWORD)
    page.click("button[type=submit]")
    page.wait_for_selector("#today")
    _until(page, "navigator.serviceWorker.controller !== null")
    page.reload()
    _until(page, KEPT)
    ticks = []
    for _ in range(REPEATS):
        page.locator("details.write summary").first.click()
        page.locator("details.write [name=note]").first.fill("clear")
        begin = time.perf_counter()
        page.locator("details.write button[type=submit]").first.click()
        page.wait_for_selector("details.write:not([open])")
        ticks.append(time.perf_counter() - begin)
    _until(page, KEPT)
    os.killpg(server.pid, signal.SIGKILL)
    server.wait()
    lasted = []
    for _ in range(REPEATS):
        page.close()
        page = context.new_page()
        begin = time.perf_counter()
        page.goto(address)
        page.wait_for_selector("#today .first")
        lasted.append(time.perf_counter() - begin)
    print(json.dumps({
        "written_down_median_ms": round(1000 * statistics.median(ticks)),
        "offline_start_median_ms": round(1000 * statistics.median(lasted)),
        "offline_start_slowest_ms": round(1000 * max(lasted)),
    }))  # fmt: skip


def _until(page, expression) -> None:
    while not page.evaluate(expression):
        page.wait_for_timeout(100)


main()
