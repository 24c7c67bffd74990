"""The demo kitchen, a cook who is signed in, and a stranger."""

import functools
import html
import inspect
import re
import sqlite3
from contextlib import closing
from importlib import import_module

import pytest
from django.core.cache import cache
from django.db import connection
from django.test import Client
from django.urls import URLPattern, URLResolver, get_resolver

from pantry_web.demo import kitchen as demo
from pantry_web.devices.actions.take_readings import means_before
from pantry_web.feasts.models import Dish, Feast
from pantry_web.kitchens.actions.found_kitchen import found_kitchen
from pantry_web.kitchens.models import Cook, Kitchen
from pantry_web.planning import looking
from tests.conftest import made_once
from tests.web import pseudo

NOW = demo.STANDS_AT
SIGNED_IN = {}
"""The cookies of a session of the demo's cook."""


SOLVERS = {
    "solve": ("plan", "is_possible", "begins_between", "latest_begin"), "why": ("explain",),
    "apart": ("apart",),
}  # fmt: skip
"""Functions of the core's planner: the same problem gives the same answer."""


@pytest.fixture(scope="session", autouse=True)
def _every_problem_is_solved_once():
    """What one test had solved serves the others; whatever differs is solved."""
    with pytest.MonkeyPatch.context() as patch:
        for module, names in SOLVERS.items():
            there = import_module(f"pantry_core.plan.{module}")
            for name in names:
                patch.setattr(there, name, _remembered(getattr(there, name)))
        yield


def _remembered(function):
    """The function with its answers kept by its problem; of a kept one no progress is told."""
    kept = {}

    @functools.wraps(function)
    def answer(problem, *others, **named):
        given = [each for each in others if not callable(each)]
        key = repr((problem, given, sorted(named.items())))
        if key not in kept:
            kept[key] = function(problem, *others, **named)
        return kept[key]

    return answer


@pytest.fixture(autouse=True)
def _empty_cache():
    cache.clear()
    means_before.cache_clear()


@pytest.fixture(scope="session")
def django_db_use_migrations():
    """The database is taken over migrated."""
    return False


@pytest.fixture(scope="session")
def django_db_setup(django_db_setup, django_db_blocker, loaded_demo):
    """Load the demo's gammon once; every test takes back what it changed."""
    with django_db_blocker.unblock():
        connection.ensure_connection()
        with closing(sqlite3.connect(loaded_demo / "migrated")) as migrated:
            migrated.backup(connection.connection)
        demo.load()
        kitchen = Kitchen.objects.get()
        looking.ask_for_plans(list(kitchen.feasts.all()), kitchen, demo.STANDS_AT)
        client = Client()
        client.force_login(Cook.objects.get(username=demo.COOK))
        SIGNED_IN.update(client.cookies)


class Browser(Client):
    """A client that sends the forms of a page that send themselves, and opens the page again."""

    ASKING = re.compile(r'<form[^>]*action="([^"]+)"[^>]*data-asks>(.*?)</form>', re.DOTALL)
    FEAST = re.compile(r'name="feast" value="(\d+)"')

    def get(self, path, *others, **named):
        answer = super().get(path, *others, **named)
        for _ in range(2):  # the plan, then what would help
            is_page = answer.get("Content-Type", "").startswith("text/html")
            asking = self.ASKING.findall(answer.content.decode()) if is_page else ()
            for action, form in asking:
                self.post(html.unescape(action), {"feast": self.FEAST.findall(form)})
            answer = super().get(path, *others, **named) if asking else answer
        return answer


def feast_outlooks(feasts, kitchen, now):
    """Feasts as a page shows them once it has asked for their plans."""
    looking.ask_for_plans(feasts, kitchen, now, at_once_s=60.0)
    return looking.feast_outlooks(feasts, kitchen, now)


def feast_outlook(feast, kitchen, now):
    """A feast as a page shows it once it has asked for its plan."""
    return feast_outlooks([feast], kitchen, now)[0]


def outlook(dish, kitchen, now):
    """A dish as a page shows it once it has asked for the plan of its feast."""
    return feast_outlook(dish.feast, kitchen, now).of(dish)


@pytest.fixture
def client():
    return Browser()


@pytest.fixture
def quince(db):
    return Kitchen.objects.get(name="Quince Lane")


@pytest.fixture
def feast(quince):
    return Feast.objects.get(kitchen=quince)


@pytest.fixture
def gammon(feast):
    return Dish.objects.get(feast=feast)


@pytest.fixture
def cook(quince, client):
    """The client, signed in at Quince Lane."""
    client.cookies.update(SIGNED_IN)
    return client


@pytest.fixture(scope="session")
def catalogue(tmp_path_factory):
    """The folder of the language that nobody speaks."""
    return made_once(tmp_path_factory, "locale", pseudo.write_catalogue)


@pytest.fixture
def spoken(catalogue, settings):
    """The language that nobody speaks is one of those that a browser may ask for."""
    settings.LOCALE_PATHS = [catalogue]
    settings.LANGUAGES = [("en", "English"), (pseudo.LANGUAGE, "nobody's")]


@pytest.fixture
def stranger(db):
    """A cook of another kitchen."""
    found = Cook.objects.create_user("heron", password="reed-and-water")
    found_kitchen(found, "Heron Wharf", "Europe/Oslo")
    return found


def routes(resolver=None):
    """Every address that there is."""
    for each in (resolver or get_resolver()).url_patterns:
        if isinstance(each, URLResolver):
            yield from routes(each)
        elif isinstance(each, URLPattern):
            yield each


def is_page(route):
    """Whether an address is one to look at, not only one to post to."""
    view = route.callback
    while view is not None:
        methods = inspect.getclosurevars(view).nonlocals.get("request_method_list")
        if methods is not None and "GET" not in methods:
            return False
        view = getattr(view, "__wrapped__", None)
    return True


def pass_gate(cook, dish):
    """Read or feel what the step that runs waits for, so that it is done."""
    gate = cook.get(f"/dishes/{dish.pk}/steps/").context["gate"]
    if gate is None or gate.is_open:
        return
    written = {
        "temperature": {"temperature": f"{gate.goal_c}"},
        "touch": {"touch": "tender"}, "look": {"touch": "looks-done"},
    }  # fmt: skip
    cook.post(f"/dishes/{dish.pk}/steps/note/", written[gate.asks])


def undo_last(cook, dish, page="steps"):
    """Press the undo of a page, as it shows it."""
    shown = cook.get(f"/dishes/{dish.pk}/{page}/").content.decode()
    batch = re.search(r'name="batch" value="([^"]+)"', shown)[1]
    return cook.post(f"/dishes/{dish.pk}/{page}/undo/", {"batch": batch})


def steps_of(dish):
    """The steps of a dish by their ids, as they are now."""
    dish = Dish.objects.select_related("feast__kitchen").get(pk=dish.pk)
    return {each.id: each for each in outlook(dish, dish.feast.kitchen, NOW).steps}


@pytest.fixture
def roast(cook, quince):
    """A second feast, its dry-cured loin still open, and the form's fields as they are typed."""
    feast = Feast.objects.create(
        kitchen=quince, name="Plum Sunday", serve_at="2027-05-02T11:30Z",
        time_zone="Europe/London", heads=4,
    )  # fmt: skip
    typed = {
        "name": "Loin", "cut": "pork-loin", "mass": "1.8 kg", "thickness": "50 mm",
        "method": "dry-cure", "salt": "2,5", "sugar": "1", "bone": "", "water": "",
        "cure": "cure-1", "school": "week-an-inch",
    }  # fmt: skip
    answer = cook.post(f"/feasts/{feast.pk}/dish/", typed)
    assert answer.status_code == 302, answer.context["form"].errors
    return feast, feast.dishes.get(), typed
