"""The server is stopped, ten things are written down meanwhile, and it comes back."""

import os
import sqlite3
import subprocess
import sys
from contextlib import closing, contextmanager

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import ROOT, free_port, listens


@contextmanager
def served(data, port):
    environment = os.environ | {
        "PANTRY_DATA": str(data), "PANTRY_PLAIN_HTTP": "1", "PYTHONPATH": "src",
        "DJANGO_SETTINGS_MODULE": "pantry_web.settings",
    }  # fmt: skip
    command = [sys.executable, "manage.py", "demo", "--port", str(port)]
    with subprocess.Popen(command, cwd=ROOT, env=environment, stdout=subprocess.DEVNULL) as server:
        try:
            listens(port)
            yield
        finally:
            server.kill()


def until(page, expression):
    """Wait for something in the page; it is asked from outside, for its policy forbids to poll."""
    for _ in range(300):
        if page.evaluate(expression):
            return
        page.wait_for_timeout(100)
    pytest.fail(f"never: {expression}")


@pytest.fixture
def browser_context_args(browser_context_args):
    return browser_context_args | {"service_workers": "allow"}


def test_what_is_written_down_while_the_server_is_away_is_sent_once_and_in_order(page, tmp_path):
    port = free_port()
    address = f"http://127.0.0.1:{port}"
    with served(tmp_path, port):
        page.goto(f"{address}/sign-in/")
        page.get_by_label("Username").fill("quince")
        page.get_by_label("Password").fill("lantern-night")
        page.get_by_role("button", name="Sign in").click()
        until(page, "navigator.serviceWorker.controller !== null")
        page.reload()
        until(
            page, "caches.open('pages-1').then(kept => kept.keys()).then(keys => keys.length > 9)"
        )
        expect(page.locator("details.write").first).to_be_visible(timeout=30_000)
        until(
            page,
            "caches.match('/').then(kept => kept.text())"
            ".then(text => text.includes('write d-print'))",
        )
    page.goto(f"{address}/dishes/1/rounds/")
    expect(page.get_by_text("The server is away")).to_be_visible()
    page.goto(f"{address}/")
    for n in range(10):
        expect(page.get_by_text("The server is away")).to_be_visible()
        page.locator("details.write summary").first.click()
        page.locator("details.write").first.get_by_label("Note").fill(f"away {n}")
        page.locator("details.write").first.get_by_role("button", name="Write down").click()
        expect(page.get_by_text(f"To be sent: {n + 1}.")).to_be_visible()
    page.locator("details.write summary").first.click()
    page.locator("details.write").first.get_by_label("Temperature read").fill("warm")
    page.locator("details.write").first.get_by_role("button", name="Write down").click()
    expect(page.get_by_text("To be sent: 11.")).to_be_visible()
    page.context.clear_cookies()  # the session has ended meanwhile
    with served(tmp_path, port):
        page.wait_for_url("**/sign-in/**", timeout=30_000)
        page.get_by_label("Username").fill("quince")
        page.get_by_label("Password").fill("lantern-night")
        page.get_by_role("button", name="Sign in").click()
        expect(page.get_by_label("Temperature read").first).to_have_value("warm")
        expect(page.get_by_text("The server is away")).to_be_hidden()
    with closing(sqlite3.connect(tmp_path / "pantry.sqlite3")) as kept:
        written = kept.execute(
            "SELECT note FROM feasts_event WHERE note LIKE 'away %' ORDER BY id"
        ).fetchall()
    assert [note for (note,) in written] == [f"away {n}" for n in range(10)]
