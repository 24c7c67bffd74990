"""Where a page stands: the same tabs everywhere, the same parts on every page of a kind."""

import re
from collections import deque
from datetime import timedelta

import pytest
from django.urls import resolve

from pantry_web import clock
from pantry_web.feasts.models import Event

TABS = ["Today", "Feasts", "Shopping", "Kitchen"]
PARTS = {
    "dish": ["Mix", "Steps", "Notes"],
    "feast": ["Dishes", "Passage", "Afterwards"],
    "kitchen": ["Stock", "Tools", "Units and hours", "People", "Devices", "Ledger", "Files"],
}
OF_A_DISH = ("mix", "steps", "notes", "weighing", "label", "cold", "recipe")
OF_A_FEAST = ("", "passage/", "afterwards/", "dish/", "still/", "copy/")
OF_THE_KITCHEN = ("/pantry/", "/pantry/tools/", "/house/", "/members/", "/house/devices/",
                  "/ledger/", "/house/files/", "/calendars/")  # fmt: skip


def links(page, nav):
    """The words of the links of a navigation, and which of them is the page's own."""
    found = re.search(rf'<nav class="{nav}[^>]*>(.*?)</nav>', page, re.DOTALL)
    if found is None:
        return [], []
    return [
        [words.strip() for words in re.findall(pattern, found[1])]
        for pattern in (r"<a [^>]*>([^<]*)</a>", r'aria-current="page">([^<]*)</a>')
    ]


def test_every_page_has_the_tabs_and_each_kind_its_parts(cook, feast, gammon):
    pages = {f"/dishes/{gammon.pk}/{name}/": "dish" for name in OF_A_DISH}
    pages |= {f"/feasts/{feast.pk}/{name}": "feast" for name in OF_A_FEAST}
    pages |= dict.fromkeys(OF_THE_KITCHEN, "kitchen") | {"/": "", "/feasts/": "", "/shopping/": ""}
    for path, kind in pages.items():
        page = cook.get(path).content.decode()
        shown, own = links(page, "tabs")
        assert shown == TABS, path
        assert len(own) == 1, path
        parts, own_part = links(page, "parts")
        assert parts == PARTS.get(kind, []), path
        assert len(own_part) == (1 if kind else 0), path
        assert page.count("<h1") == 1, path


NOTICE = re.compile(
    r'data-dish="(\d+)"|data-notice="([^"]*)" data-level="[^"]*" data-step="([^"]*)"'
)


def notices_of(page):
    """The notices on a page: the dish that they are of, their code and step."""
    dish = ""
    for of, code, step in NOTICE.findall(page):
        dish = of or dish
        if code:
            yield dish, code, step


def test_each_notice_stands_once_on_a_page(cook, feast, gammon, roast):
    """A stop, a caution or a reminder of a dish is said in one place of each page."""
    _, dish, _typed = roast
    paths = [f"/dishes/{dish.pk}/{name}/" for name in (*OF_A_DISH, "passage")]
    paths += [f"/feasts/{feast.pk}/{name}" for name in OF_A_FEAST]
    paths += ["/", "/feasts/", "/shopping/", "/fire/", *OF_THE_KITCHEN]
    counts = {}
    for path in paths:
        said = list(notices_of(cook.get(path).content.decode()))
        assert len(said) == len(set(said)), path
        counts[path] = len(said)
    assert counts["/feasts/"] > 2
    assert counts[f"/dishes/{dish.pk}/mix/"] > 2


def test_the_fire_stands_beside_the_tabs_while_something_is_hot(cook, quince, gammon):
    def begin(step):
        Event.objects.create(
            dish=gammon, batch="0" * 32, what="step-started", at=clock.now(quince),
            by=quince.members.get(), step_key=step,
        )  # fmt: skip

    assert links(cook.get("/").content.decode(), "tabs")[0] == TABS
    begin("simmer")
    assert links(cook.get("/house/").content.decode(), "tabs")[0] == [*TABS, "Fire"]
    quince.stands_at += timedelta(hours=2)
    quince.save()
    Event.objects.create(
        dish=gammon, batch="1" * 32, what="step-ended", at=clock.now(quince),
        by=quince.members.get(), step_key="simmer",
    )  # fmt: skip
    assert links(cook.get("/house/").content.decode(), "tabs")[0] == TABS


def test_an_own_step_in_the_oven_is_hot_too(cook, quince, gammon):
    gammon.document["edits"] = [{"step": "own-1", "own": True, "place": "oven"}]
    gammon.save()
    Event.objects.create(
        dish=gammon, batch="0" * 32, what="step-started", at=clock.now(quince),
        by=quince.members.get(), step_key="own-1",
    )  # fmt: skip
    assert "Fire" in links(cook.get("/house/").content.decode(), "tabs")[0]


@pytest.mark.parametrize(
    ("old", "new"), [("weigh-up", "mix"), ("rounds", "steps"), ("ledger", "notes")]
)
def test_old_addresses_lead_on(cook, gammon, old, new):
    assert cook.get(f"/dishes/{gammon.pk}/{old}/")["Location"] == f"/dishes/{gammon.pk}/{new}/"


def test_every_page_is_within_two_presses_of_today(cook, gammon):
    """A press is a link; what needs an object of its own that is not there is left out."""
    seen, ahead = {"/"}, deque([("/", 0)])
    while ahead:
        path, presses = ahead.popleft()
        if presses == 2:
            continue
        page = cook.get(path)
        if "html" not in page["Content-Type"]:
            continue
        for link in set(re.findall(r'href="(/(?!static)[^"#?]*)', page.content.decode())) - seen:
            seen.add(link)
            ahead.append((link, presses + 1))
    reached = {resolve(link).url_name for link in seen}
    main = {"feasts", "shopping", "pantry", "tools", "house", "members", "devices", "ledger",
            "files", "feast", "feast-passage", "weigh-up", "steps", "ledger-dish", "handbook",
            "new-feast", "first-dish"}  # fmt: skip
    assert main <= reached


def test_a_reminder_that_is_understood_is_told_no_more_and_can_be_read_again(cook, quince, roast):
    feast, dish, _typed = roast
    steps, mix = f"/dishes/{dish.pk}/steps/", f"/dishes/{dish.pk}/mix/"
    page = cook.get(mix).content.decode()
    codes = re.findall(r'name="code" value="([^"]+)"', page)
    assert codes
    assert 'class="reminders"' in cook.get(steps).content.decode()
    done = cook.post("/house/understood/", {"dish": dish.pk, "code": [*codes, "<b>", "x" * 50]})
    assert done["Location"] == mix
    quince.refresh_from_db()
    assert quince.understood == sorted(codes)
    again = cook.get(mix).content.decode()
    assert 'data-notice="' + codes[0] in again
    assert "remind us no more" not in again
    for path in (steps, f"/feasts/{feast.pk}/"):
        assert f'data-notice="{codes[0]}"' not in cook.get(path).content.decode()
    assert cook.post("/house/understood/", {"dish": "1" * 30})["Location"] == "/"
