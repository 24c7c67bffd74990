"""The demo as it is served, in a process of its own, and Debian's Chromium."""

import os
import shutil
import socket
import subprocess
import sys
import time
from contextlib import contextmanager
from pathlib import Path

import pytest
from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import expect

from tests.conftest import ROOT, environment

LOADED: list[Path] = []
CHROMIUM = "/usr/bin/chromium-headless-shell"

expect.set_options(timeout=20_000)  # a busy machine answers late


def free_port():
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return probe.getsockname()[1]


def listens(port):
    """Wait until a server listens; a busy machine is slow to load it."""
    for _ in range(900):
        with socket.socket() as probe:
            if probe.connect_ex(("127.0.0.1", port)) == 0:
                break
        time.sleep(0.1)


@pytest.fixture(scope="session", autouse=True)
def _keep_loaded_demo(loaded_demo):
    LOADED.append(loaded_demo)


@contextmanager
def served(data, port, *, is_empty=False):
    """The demo served from a folder, filled with what was loaded; or a machine without a cook."""
    if is_empty:
        data.mkdir(parents=True, exist_ok=True)
        shutil.copy(LOADED[0] / "migrated", data / "pantry.sqlite3")
    elif not (data / "pantry.sqlite3").exists():
        shutil.copytree(LOADED[0], data, dirs_exist_ok=True)
    what = "serve" if is_empty else "demo"
    command = [sys.executable, "manage.py", what, "--port", str(port), "--processes", "1"]
    with subprocess.Popen(
        command, cwd=ROOT, env=environment(data), stdout=subprocess.DEVNULL
    ) as server:
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


VIOLATIONS = """axe.run({resultTypes: ['violations'], preload: false}).then(({violations}) =>
  violations.map((rule) => [rule.id, rule.nodes.map((node) => node.html.slice(0, 80))]))"""


def complaints_of(page):
    """What axe finds wrong with the page that is open: each rule with where it is broken."""
    if not page.evaluate("'axe' in window"):
        page.evaluate(Axe().axe_script)
    return page.evaluate(VIOLATIONS)


def sign_in(page, address):
    """Open Today at the address of a server, as the demo's cook who has signed in before."""
    key = (LOADED[0] / "signed-in").read_text()
    page.context.add_cookies([{"name": "sessionid", "value": key, "url": address}])
    page.goto(f"{address}/")


def sign_in_by_hand(page):
    """Sign the demo's cook in on the page that is open."""
    page.get_by_label("Username").fill("quince")
    page.get_by_label("Password").fill("lantern-night")
    page.get_by_role("button", name="Sign in").click()


@pytest.fixture(scope="session")
def browser_context_args(browser_context_args):
    """No page is answered from a cache unless a test is about that."""
    return browser_context_args | {"service_workers": "block"}


@pytest.fixture(scope="session")
def browser_type_launch_args(browser_type_launch_args):
    quiet = ["--disable-gpu", "--disable-background-networking", "--disable-component-update"]
    sandbox = ["--no-sandbox"] if os.geteuid() == 0 else []
    return browser_type_launch_args | {"executable_path": CHROMIUM, "args": [*quiet, *sandbox]}


@pytest.fixture(scope="session")
def base_url(tmp_path_factory):
    port = free_port()
    with served(tmp_path_factory.mktemp("data"), port):
        yield f"http://127.0.0.1:{port}"


@pytest.fixture
def signed_in(page, base_url):
    """A page of the demo's cook; what the browser complains of fails the test."""
    complaints = []
    page.on("pageerror", lambda error: complaints.append(str(error)))
    page.on(
        "console",
        lambda message: "Content Security" in message.text and complaints.append(message.text),
    )
    sign_in(page, base_url)
    yield page
    assert complaints == []
