"""Every text of every page in many states and both systems of units: as people say it."""

import re
from datetime import timedelta
from gettext import GNUTranslations
from html import unescape
from pathlib import Path

import html5lib
import pytest
from django.test import Client
from django.urls import reverse
from docs.make_messages import update

from pantry_core.routes.ways import WAYS
from pantry_core.rules.listing import all_rules
from pantry_web.demo import kitchen as demo
from pantry_web.feasts.actions.add_dish import add_dish
from pantry_web.feasts.actions.record_mishap import record_mishap
from pantry_web.feasts.models import Dish, Feast, Mishap
from pantry_web.kitchens.models import Cook
from pantry_web.running.messages import messages
from tests.web import pseudo
from tests.web.conftest import is_page, routes
from tests.web.texts import Texts

BANNED = (
    "as soon as may be", "aught", "nought", "gives up", "give up", "heads", "thereof", "whilst",
    "rim", "aimed at", "if left for ever", "when even", "afresh", "anew", "by whom",
    "what lifts it", "hitherto", "wherein", "upon",
)  # fmt: skip
"""Archaic words, and those of the model's insides."""
NOT_SAID = {
    "minutes over three hours": r"\b(?:[3-9]|\d\d+) h \d+ min\b|\b\d+ d \d+ h\b|\b\d+ d\b",
    "a pinch of spoons": r"\bpinch (?:tbsp|tsp|cups?)\b",
    "an amount of nothing": r"(?<![\d.])0\.0+ (?:g|oz|ml|lb)\b|\d{4,} ?%",
    "decimals of spoons": r"\d\.\d+ (?:tbsp|tsp|cups?|quarts?)\b",
    "one of several": r"(?<![\d.,½¼¾])\b1 (?:days|hours|weeks|dishes|people|pieces)\b",
    "nothing to two decimals": r"\b0\.00\b",
    "a range from a figure to itself": r"\b([\d½¼¾.]+ (?:lb|oz|g|kg)) to \1\b(?! \d)",
    "a banned word": r"\b(?:" + "|".join(BANNED) + r")\b",
    "a template that was not filled in": r"\{\{|\{%|\{[@\d−-]|\bNone (?:g|mm|%|min|h)\b",
}
OF_THE_OTHER = {
    "metric": r"°F|\d (?:lb|oz|qt|in(?! \d| the| all))\b",
    "imperial": r"°C|\d (?:mm|cm|ml|l|kg)\b|(?<![\d:.])(?:1[3-9]|2[0-3]):[0-5]\d\b",
}
"""A kitchen in pounds has a clock of twelve hours here."""
FACES = {"metric": "24", "imperial": "12"}
NEVER = (
    "empty: ", "whose time to go by", "whose cups", "it costs a clean", "as trimming goes",
    "you lose the crispest", "forgives nothing", "it lies", "time you have", "then it is",
    "cannot all be done by then", "it needs at least", "wants hands at once",
    "another pair of hands", "are planned without it", "told of it yet", "what came of it",
    "change what was told", "press a ribbon", "or no work", "worked out anew: hours",
    "a dish begins", "no trip is planned", "it is liked", "hours that are usual",
    "only boiled first", "nothing but cold", "wants an answer first", "told this once",
    "is taken off", "clock stands where", "the word that the program", "gives up", "would do",
)  # fmt: skip
"""Phrases that no text may have, of whatever page: each has a plainer one."""
WEB = Path(__file__).parents[2] / "src" / "pantry_web"
GRAMS = re.compile(r"(?<!in 100 )(?<!\d)(?!100 g)[\d.]+ g\b(?! of nitrite)")
"""What a page in pounds says in grams, but for curing salt and the 100 g of a label."""
LEAVES = {"sign-out", "first-start", "come-in", "new-password"}


EXAMPLE = re.compile(
    r"“[^”]*”|as it stands: [^…]*…|Bag of 6 l|2\.61 kg in the shop|like 120 ml soy sauce"
    r"|reads to [\d.]+ g"
)
"""What may be typed in anybody's units, and what the demo's cook has typed."""


OF_THE_HOUSE = {
    "password", "members", "house", "hours", "pantry", "handbook", "trust", "bring-in-kitchen",
    "bring-in",
    "new-feast", "first-dish", "devices", "check-thermometer", "feeds", "change-thing",
}  # fmt: skip
"""Pages that show nothing of any feast: the same in every state, and looked at in two."""


PAGES = [route for route in routes() if is_page(route)]


def pages(kitchen, only=None, some=None, *, with_house=True, with_feast=True):
    """Every page of a kitchen, or of a dish and its feast, from the table of all addresses.

    Those of some of its dishes, if it is said which; of whole feasts all the same.
    """
    feasts = list(kitchen.feasts.all()) if only is None else [only.feast]
    dishes = [only] if only else [dish for feast in feasts for dish in feast.dishes.all()]
    dishes = dishes[some] if some else dishes
    of = {
        frozenset(): [{}] if only is None else [],
        frozenset(("feast_id",)): [{"feast_id": each.pk} for each in feasts if with_feast],
        frozenset(("dish_id",)): [{"dish_id": each.pk} for each in dishes],
        frozenset(("thing", "thing_id")): [
            {"thing": "vessel", "thing_id": each.pk} for each in kitchen.vessels.all()[:1]
        ],
    }
    for route in PAGES:
        if route.name in LEAVES or (route.name in OF_THE_HOUSE and not with_house):
            continue
        for known in of.get(frozenset(route.pattern.converters), ()):
            yield reverse(route.name, kwargs=known)


def lantern(quince):
    demo.lay_the_table(quince, Feast.objects.get(kitchen=quince))


def with_dish(name, document):
    return lambda quince: add_dish(Feast.objects.get(kitchen=quince), name, document)


def needled(**more):
    cure = {"method": "needle-brine", "injection_share": 0.1, "water_g": 1500.0, **more}
    return {"piece": {"cut": "pork-loin", "mass_g": 2200.0}, "cure": cure}


def cured(method, cut, *, cure=None, way=None, **piece):
    heat = {"heat": {"way": way}} if way else {}
    return {"piece": {"cut": cut, **piece}, "cure": {"method": method, **(cure or {})}, **heat}


def side_jobs(quince):
    for job in ("dough", "stock", "sauce", "rice"):
        with_dish(job.capitalize(), {"job": {"name": job, "made_g": 1500.0}})(quince)


def was_warm(quince):
    record_mishap(
        quince, Cook.objects.get(username=demo.COOK), Mishap.Kind.FRIDGE_WARM,
        quince.stands_at - timedelta(hours=9), quince.stands_at, temperature_c=12.0,
    )  # fmt: skip


STATES = {
    "as it stands": str,
    "all dishes": lantern,
    "the day before": lambda quince: (lantern(quince), later(quince, days=3)),
    "the day of the fire": lambda quince: (lantern(quince), later(quince, days=3, hours=18)),
    "it is over": lambda quince: later(quince, days=6),
    "too late": lambda quince: Feast.objects.filter(kitchen=quince).update(
        serve_at=quince.stands_at + timedelta(hours=9)
    ),
    "a fridge too small": lambda quince: quince.places.filter(name="fridge").update(capacity=3.0),
    "away for long": lambda quince: (lantern(quince), quince.absences.create(
        begins=quince.stands_at + timedelta(hours=2), ends=quince.stands_at + timedelta(days=2)
    )),
    "by the rules of the other side": lambda quince: type(quince).objects.update(profile="eu"),
    "a dish is dropped": lambda quince: (lantern(quince), Dish.objects.filter(
        name="Yoghurt goat").update(is_given_up=True)),
    "the fridge was warm": was_warm,
    "side jobs": side_jobs,
    "by needle, with celery": with_dish("Celery loin", needled(curing_salt="celery")),
    "far too much saltpetre": with_dish("Old hock", needled(
        curing_salt="saltpetre", ingoing_ppm=3000.0, days=8.0)),
    "fish to be eaten raw": with_dish("Char", cured(
        "dry-cure", "char-side", mass_g=900.0, will_be="raw", cure={"days": 1.5})),
    "a wild haunch from the freezer": with_dish("Haunch", cured(
        "even-brine", "venison", mass_g=2600.0, frozen=True, wild="deer", way="pressure",
        cure={"water_g": 3000.0, "curing_salt": "cure-1", "days": 5.0})),
    "heaped, then washed": with_dish("Shoulder", cured(
        "heaped-cure", "pork-shoulder", mass_g=2400.0, skin=True, way="roast-staged")),
    "in pieces, fried": with_dish("Wings", cured(
        "dairy-marinade", "chicken-wing", mass_g=1400.0, count=12, way="fry")),
    "what cannot be": with_dish("Nothing", cured(
        "even-brine", "pork-loin", mass_g=9000.0, thickness_mm=12.0)),
}  # fmt: skip


SAME_DISHES = {
    "all dishes", "the day before", "the day of the fire", "away for long", "a dish is dropped",
}  # fmt: skip


WITH_HOUSE = {"as it stands", "all dishes"}
"""States in which the pages of the house are looked at as well, one in each system of units."""
WITH_FEAST = {"what cannot be", "by needle, with celery"}
"""States of a single dish in which the pages of its feast are looked at as well."""


def later(quince, **time):
    quince.stands_at += timedelta(**time)
    quince.save()


def shown(client, kitchen, only=None, some=None, *, headers=None, **also):
    """Every page that can be opened: its address, and its HTML."""
    for path in pages(kitchen, only, some, **also):
        answer = client.get(path, headers=headers)
        if answer.status_code == 200 and "text/html" in answer["Content-Type"]:
            yield path, answer.content.decode()


def wrongly_said(page, units, typed=None):
    """What a page says in words of its own that people would not, or that is not translated.

    Parameters: page; units; typed, what the cook has typed, where it is in the language that nobody
    speaks.
    """
    texts = Texts(page)
    whole = EXAMPLE.sub("", pseudo.plainly(" ".join(texts.but("option"))))
    for name, pattern in {**NOT_SAID, "units of others": OF_THE_OTHER[units]}.items():
        for found in re.finditer(pattern, whole, re.IGNORECASE if "word" in name else 0):
            yield f"{name}: …{whole[max(found.start() - 40, 0) : found.end() + 20]}…"
    if units == "imperial":
        apart = EXAMPLE.sub("", pseudo.plainly(" ".join(texts.but("option", "cite"))))
        for found in GRAMS.finditer(apart):
            yield f"grams: …{apart[max(found.start() - 40, 0) : found.end() + 20]}…"
    if typed is not None:
        yield from pseudo.unmarked(texts, typed)


def assert_said_well(client, kitchen, units, only=None, some=None, **also):
    """In the language that nobody speaks no English is left but what the cook has typed."""
    type(kitchen).objects.filter(pk=kitchen.pk).update(units=units, clock_face=FACES[units])
    typed, wrong = pseudo.typed_in(kitchen), []
    language = {"accept-language": pseudo.LANGUAGE}
    for path, page in shown(client, kitchen, only, some, headers=language, **also):
        wrong += [f"{path}: {each}" for each in wrongly_said(page, units, typed)]
    assert not wrong, "\n".join(sorted(set(wrong))[:60])


@pytest.mark.parametrize("state", STATES)
def test_it_is_said_as_people_say_it(cook, quince, spoken, state):
    """Each state in units in turn; of the same dishes in many states some in each."""
    made, turn = STATES[state](quince), list(STATES).index(state)
    only = made if isinstance(made, Dish) else None
    some = slice(turn % 3, None, 3) if state in SAME_DISHES else None
    units = ("metric", "imperial")[turn % 2]
    with_house, with_feast = state in WITH_HOUSE, only is None or state in WITH_FEAST
    assert_said_well(cook, quince, units, only, some, with_house=with_house, with_feast=with_feast)


def test_english_pages_are_valid_in_pounds_and_what_is_refused_is_said_in_their_language(
    cook, quince, spoken
):
    """Every page of all dishes; each form on them is posted once, filled with nonsense."""
    lantern(quince)
    type(quince).objects.filter(pk=quince.pk).update(units="imperial", clock_face="12")
    typed, wrong, forms = pseudo.typed_in(quince), [], {}
    for path, page in shown(cook, quince):
        wrong += [f"{path}: {each}" for each in wrongly_said(page, "imperial")]
        parser = html5lib.HTMLParser(namespaceHTMLElements=False)
        document = parser.parse(page)
        if page.lstrip().lower().startswith("<!doctype"):
            wrong += [f"{path}: {each}" for each in invalid(document, parser.errors)]
        for action, fields in forms_of(document):
            where = action or path
            forms.setdefault(re.sub(r"\d+", "0", where), (where, fields))
    refused = 0
    for where, fields in forms.values():
        if "remove" in where:
            continue
        answer = cook.post(where, fields, headers={"accept-language": pseudo.LANGUAGE})
        if answer.status_code == 422 and "text/html" in answer["Content-Type"]:
            refused += 1
            said = pseudo.unmarked(Texts(answer.content.decode()), typed)
            wrong += [f"{where}: {each}" for each in said]
    assert refused > 15, forms
    assert not wrong, "\n".join(sorted(set(wrong))[:60])


def test_an_empty_kitchen_speaks_well_too(stranger, spoken):
    client = Client()
    client.force_login(stranger)
    for units in ("imperial", "metric"):
        assert_said_well(client, stranger.kitchens.get(), units)


def invalid(document, errors):
    """What is wrong by the standard's own parser; each id once, and whatever names an id finds it.

    Parameters: document; errors, those of its parser.
    """
    wrong = [f"{place}: {code} {more}" for place, code, more in errors]
    ids = [each.get("id") for each in document.iter() if each.get("id")]
    wrong += [f"the id {each} twice" for each in {each for each in ids if ids.count(each) > 1}]
    for each in document.iter():
        for name in ("for", "aria-labelledby", "aria-describedby", "aria-controls"):
            for named in (each.get(name) or "").split():
                if named not in ids:
                    wrong.append(f"{each.tag} {name}={named} names nothing")
    return wrong


def test_the_handbook_has_every_method_and_every_limit(cook):
    answer = cook.get("/handbook/")
    page = unescape(answer.content.decode())
    assert all(way.name in page for way in WAYS.values())
    assert all(rule.basis in page for rule in all_rules())
    assert "Salometer" in page


def forms_of(document):
    """The forms of a page that are posted: where to, and their fields filled with nonsense."""
    for form in document.iter("form"):
        if form.get("method") == "post" and "sign-out" not in (form.get("action") or ""):
            fields = {
                each.get("name"): each.get("value") or ""
                if each.get("type") in ("hidden", "radio", "checkbox", "submit")
                else "§§"
                for each in (*form.iter("input"), *form.iter("textarea"), *form.iter("select"))
                if each.get("name")
            }
            yield form.get("action") or "", fields


def test_no_text_has_a_phrase_that_people_would_not_say():
    texts = [text for each in messages() for text in ([each] if isinstance(each, str) else each)]
    assert len(texts) > 2500
    said = [(phrase, text) for text in texts for phrase in NEVER if phrase in text.lower()]
    assert said == []


def test_what_is_told_once_is_marked_for_translation():
    calls = re.compile(r"messages\.\w+\(\s*request, f?[\"'][A-Z]")
    plain = [path for path in WEB.rglob("*.py") if calls.search(path.read_text())]
    assert plain == []


def test_saved_is_said_in_the_language_of_the_page(cook, spoken):
    hours = {"shop_mon_from": "09:00", "shop_mon_to": "18:00"}
    cook.post(reverse("hours"), hours, headers={"accept-language": pseudo.LANGUAGE})
    page = cook.get(reverse("house"), headers={"accept-language": pseudo.LANGUAGE})
    assert pseudo.accented("Saved.") in page.content.decode()
    assert "Saved." not in page.content.decode()


def test_a_recipe_is_asked_about_in_the_language_of_the_page(cook, gammon, spoken):
    """What a line may mean, what is too much, and what would be right."""
    recipe = "2 qt water\n1 cup salt\n3 tbsp pink salt\n1 heaped spoon of sugar\nsome celery juice"
    typed = {"text": recipe, "method": "even-brine", "cups": "us", "days": "9"}
    page = cook.post(
        f"/dishes/{gammon.pk}/recipe/", typed, headers={"accept-language": pseudo.LANGUAGE}
    ).content.decode()
    for line in recipe.splitlines():
        page = page.replace(line, "")
    kitchen = gammon.feast.kitchen
    assert not list(wrongly_said(page, kitchen.units, pseudo.typed_in(kitchen)))


def test_a_language_that_is_added_keeps_what_was_translated(tmp_path):
    kept = update("nl", tmp_path)
    kept.write_text(
        kept.read_text().replace('msgid "Save"\nmsgstr ""', 'msgid "Save"\nmsgstr "Bewaar"')
    )
    assert 'msgstr "Bewaar"' in update("nl", tmp_path).read_text()
    with kept.with_suffix(".mo").open("rb") as file:
        assert GNUTranslations(file).gettext("Save") == "Bewaar"
