"""Today over three feasts of eight dishes: the list, another look at it, and a tick.

Run it with `bin/bench today`. It makes a kitchen of its own in a temporary folder. Times are those
of the server alone, from request to response; queries are counted, with those of the sign-in.
"""

import re
from datetime import timedelta
from uuid import uuid4

from bench.timing import HEAD, measure
from django.core.management import call_command
from django.test import Client

from pantry_web.demo import kitchen as demo
from pantry_web.feasts.actions.add_dish import add_dish
from pantry_web.feasts.models import Feast
from pantry_web.kitchens.models import Cook, Kitchen
from pantry_web.planning.looking import ask_for_plan, feast_outlook
from pantry_web.planning.solving import work_out_plan

REPEATS = 60
FEASTS = 3
DISHES = 8
SIDES = ("dough", "stock", "cold-sauce", "rice")


def main() -> None:
    """Fill the kitchen, have its plans worked out, and print a table."""
    call_command("migrate", verbosity=0)
    demo.load()
    kitchen = Kitchen.objects.get()
    gammon = Feast.objects.get().dishes.get()
    for n in range(FEASTS - 1):
        feast = Feast.objects.create(
            kitchen=kitchen, name=f"Feast {n}", serve_at=demo.SERVE_AT + timedelta(days=7 + n),
            time_zone=demo.ZONE, heads=8,
        )  # fmt: skip
        add_dish(feast, gammon.name, gammon.document)
        _fill(kitchen, feast)
    _fill(kitchen, gammon.feast)
    for feast in kitchen.feasts.all():
        ask_for_plan(feast, kitchen, demo.STANDS_AT)
        whole = feast_outlook(feast, kitchen, demo.STANDS_AT)
        if whole.solving is not None:
            work_out_plan.call(whole.solving.pk)
        plan = feast_outlook(feast, kitchen, demo.STANDS_AT).plan
        print(f"{feast.name}: {len(whole.dishes)} dishes, {plan.status}", flush=True)
    client = Client()
    client.force_login(Cook.objects.get(username=demo.COOK))
    page = client.get("/").content.decode()
    seen = {"X-Seen": re.search(r'data-seen="(\w+)"', page)[1]}
    print(HEAD)
    measure("today", lambda: client.get("/"), REPEATS)
    measure("nothing new", lambda: client.get("/", headers=seen), REPEATS)
    note = f"/today/{gammon.pk}/note/"
    measure("a press", lambda: client.post(note, {"note": "clear", "once": str(uuid4())}), REPEATS)


def _fill(kitchen: Kitchen, feast: Feast) -> None:
    """The other dishes of Lantern Night, and sides until there are eight."""
    demo.lay_the_table(kitchen, feast)
    for job in SIDES[: DISHES - feast.dishes.count()]:
        add_dish(feast, job, {"job": {"name": job, "made_g": 1500.0}})


main()
