"""The server is stopped, ten things are written down meanwhile, and it comes back."""

import sqlite3
from contextlib import closing

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import free_port, served, sign_in, sign_in_by_hand, until


@pytest.fixture
def browser_context_args(browser_context_args):
    return browser_context_args | {"service_workers": "allow"}


def test_what_is_written_down_while_the_server_is_away_is_sent_once_and_in_order(page, tmp_path):
    port = free_port()
    address = f"http://127.0.0.1:{port}"
    with served(tmp_path, port):
        sign_in(page, address)
        until(page, "navigator.serviceWorker.controller !== null")
        page.reload()
        until(
            page, "caches.open('pages-1').then(kept => kept.keys()).then(keys => keys.length > 9)"
        )
        expect(page.locator("details.write").first).to_be_visible(timeout=120_000)
        until(
            page,
            "caches.match('/').then(kept => kept.text())"
            ".then(text => text.includes('write d-print'))",
        )
    page.goto(f"{address}/dishes/1/steps/")
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
    page.context.clear_cookies()  # the sign-in has ended meanwhile
    with served(tmp_path, port):
        page.wait_for_url("**/sign-in/**", timeout=30_000)
        sign_in_by_hand(page)
        expect(page.get_by_label("Temperature read").first).to_have_value("warm")
        expect(page.get_by_text("The server is away")).to_be_hidden()
    with closing(sqlite3.connect(tmp_path / "pantry.sqlite3")) as kept:
        written = kept.execute(
            "SELECT note FROM feasts_event WHERE note LIKE 'away %' ORDER BY id"
        ).fetchall()
    assert [note for (note,) in written] == [f"away {n}" for n in range(10)]
