"""The page of help, made from the tables that the work itself goes by."""

from collections import Counter
from itertools import groupby

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render

from pantry_core.foods.table import rows
from pantry_core.mixes.standing import EVERY_DISH
from pantry_core.routes.customs import CUSTOMS
from pantry_core.routes.schools import FIVE_DAYS, FORTNIGHT, NAMES, TWO_DAYS_A_KILO
from pantry_core.routes.ways import WAYS
from pantry_core.rules.constants import WEEK_AN_INCH
from pantry_core.rules.listing import all_rules
from pantry_core.rules.rule import Mark
from pantry_core.rules.verify import TO_VERIFY, resting_on
from pantry_web.handbook.words import WORDS

_SCHOOLS = (
    ("week-an-inch", WEEK_AN_INCH), ("two-days-a-kilo", TWO_DAYS_A_KILO),
    ("five-days", FIVE_DAYS), ("fortnight", FORTNIGHT),
)  # fmt: skip


def handbook(request: HttpRequest) -> HttpResponse:
    """Every word, method, school and limit."""
    ways = sorted(WAYS.values(), key=lambda way: way.group)
    context = {
        "words": WORDS,
        "groups": [(group, list(found)) for group, found in groupby(ways, lambda way: way.group)],
        "customs": CUSTOMS,
        "every_dish": EVERY_DISH,
        "schools": [(NAMES[name], rule) for name, rule in _SCHOOLS],  # type: ignore[index]  # its ids
        "rules": sorted(all_rules(), key=lambda rule: rule.id),
    }
    return render(request, "handbook/handbook.html", context)


def trust(request: HttpRequest) -> HttpResponse:
    """How far each kind of figure can be trusted, and the list of what is still to be checked."""
    rules = all_rules()
    count = Counter(rule.mark for rule in rules)
    context = {
        "looked_up": count[Mark.SOURCE],
        "practice": count[Mark.PRACTICE],
        "memory": count[Mark.MEMORY],
        "derived": count[Mark.DERIVED] + count[Mark.DEFINED],
        "all": len(rules),
        "entries": [(entry, resting_on(entry, rules)) for entry in TO_VERIFY],
        "foods": len(rows()),
    }
    return render(request, "handbook/trust.html", context)
