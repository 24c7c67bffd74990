"""Weigh-up's answer to a keystroke, and every page with 200 dishes in the kitchen.

Run it with `bin/bench pages`, or `DISHES=1500 bin/bench pages`. It makes a kitchen of its own in a
temporary folder. Times are those of the server alone, from request to response, without the
network; queries are counted.
"""

import os
import statistics
import time
from datetime import UTC, datetime, timedelta

from django.core.management import call_command
from django.db import connection
from django.test import Client
from django.test.utils import CaptureQueriesContext

from pantry_web.demo import kitchen as demo
from pantry_web.feasts.actions.add_dish import add_dish
from pantry_web.feasts.models import Dish, Feast
from pantry_web.kitchens.models import Cook, Kitchen
from pantry_web.ledger.models import Evidence, Review
from pantry_web.planning.looking import ask_for_plans

DISHES = int(os.environ.get("DISHES", "200"))
REPEATS = 60
PATHS = ("/", "/feasts/new/", "/feasts/1/", "/dishes/1/mix/", "/dishes/2/mix/",
         "/dishes/1/passage/", "/dishes/2/passage/", "/dishes/1/steps/", "/house/",
         "/dishes/1/calendar.ics", "/dishes/2/steps/", "/dishes/2/label/", "/dishes/2/weighing/",
         "/shopping/")  # fmt: skip

EATEN_PATHS = ("/ledger/", "/ledger/?q=gammon+feast&cut=gammon-flat", "/dishes/2/notes/",
               "/ledger/compare/?a=2&b=3")  # fmt: skip


def main() -> None:
    """Fill the kitchen and print a table."""
    call_command("migrate", verbosity=0)
    demo.load()
    kitchen = Kitchen.objects.get()
    for n in range(1, DISHES):
        feast = Feast.objects.create(
            kitchen=kitchen, name=f"Feast {n}", serve_at=demo.SERVE_AT + timedelta(days=7 + n),
            time_zone=demo.ZONE, heads=4,
        )  # fmt: skip
        add_dish(feast, f"Gammon {n}", demo.GAMMON)
    soon = Feast.objects.filter(serve_at__lte=demo.SERVE_AT + timedelta(days=60))
    ask_for_plans(list(soon), kitchen, demo.STANDS_AT, at_once_s=600.0)
    client = Client()
    client.force_login(Cook.objects.get(username=demo.COOK))
    print(f"{Dish.objects.count()} dishes, {datetime.now(UTC):%Y-%m-%d}")
    print(f"{'page':34}{'queries':>8}{'median ms':>11}{'90 % ms':>9}{'first ms':>10}")
    for path in PATHS:
        _measure(path, lambda path=path: client.get(path))
    typed = {
        "name": "Gammon", "cut": "gammon-flat", "mass": "2.38 kg", "thickness": "50 mm",
        "method": "even-brine", "water": "2,4 l", "salt": "2", "sugar": "1.5", "cure": "cure-1",
        "school": "model",
    }  # fmt: skip
    _measure("keystroke: POST /feasts/2/answer/", lambda: client.post("/feasts/2/answer/", typed))
    recipe = {
        "text": "2 qt water\n1 cup table salt\n½ cup brown sugar\n25 g curing salt no. 1",
        "method": "even-brine", "cups": "us", "used": "100", "days": "5", "is_scaled": "on",
    }  # fmt: skip
    path = "/dishes/2/recipe/answer/"
    _measure(f"recipe: POST {path}", lambda: client.post(path, recipe))
    Feast.objects.exclude(pk=1).update(serve_at=demo.SERVE_AT - timedelta(days=300))  # all eaten
    _tell_of_all(kitchen)
    for path in EATEN_PATHS:
        _measure(path, lambda path=path: client.get(path))


def _tell_of_all(kitchen: Kitchen) -> None:
    """Every dish was told of, and tells something of three figures."""
    by, now = kitchen.memberships.first().cook, demo.STANDS_AT
    dishes = list(Dish.objects.all())
    Review.objects.bulk_create(
        Review(dish=dish, by=by, told_at=now, saltiness="salty", next_time="Less salt, more bay.",
               is_learnt_from=True)
        for dish in dishes
    )  # fmt: skip
    told = {
        "salt-liking": {"salt_pct": 2.0, "usual_pct": 2.0, "taste": "salty"},
        "hours-oven": {"foretold_h": 2.0, "took_h": 2.3, "is_read": True},
        "trimmed-left": {"usual": 0.05, "seen": 0.08},
    }
    Evidence.objects.bulk_create(
        Evidence(dish=dish, figure=figure, seen=seen)
        for dish in dishes for figure, seen in told.items()
    )  # fmt: skip


def _measure(name, ask) -> None:
    times = []
    for _ in range(REPEATS):
        begin = time.perf_counter()
        answer = ask()
        times.append(1000 * (time.perf_counter() - begin))
        if answer.status_code != 200:
            raise SystemExit(f"{name} answered {answer.status_code}")
    with CaptureQueriesContext(connection) as queries:
        ask()
    settled = sorted(times[1:])
    median, late = statistics.median(settled), settled[int(0.9 * len(settled))]
    print(f"{name:34}{len(queries):>8}{median:>11.1f}{late:>9.1f}{times[0]:>10.1f}")


if __name__ == "__main__":
    main()
