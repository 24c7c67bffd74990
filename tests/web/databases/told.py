"""Tell what a migrated database says, as JSON: run in a process of its own."""

import json
import sys
from dataclasses import asdict

import django

django.setup()

from pantry_web.feasts.models import Event, Feast, KeptRoute, WeighSheet  # noqa: E402
from pantry_web.planning.outlook import feast_outlook  # noqa: E402
from pantry_web.planning.solving import work_out_plan  # noqa: E402


def main():
    told = {"dishes": {}, "plans": {}, "routes": list(KeptRoute.objects.values("name", "steps"))}
    for feast in Feast.objects.select_related("kitchen"):
        now = feast.kitchen.stands_at
        whole = feast_outlook(feast, feast.kitchen, now)
        if whole.solving is not None:
            work_out_plan.call(whole.solving.pk)
            whole = feast_outlook(feast, feast.kitchen, now)
        for view in whole.dishes:
            told["dishes"][str(view.dish.pk)] = {
                "steps": [asdict(step) for step in view.steps],
                "problems": [each.what for each in view.problems],
                "put_in": view.state.put_in is not None,
            }
        told["plans"][feast.name] = {
            "status": whole.plan.status,
            "steps": [[each.dish, each.step, each.start.isoformat(), each.end.isoformat()]
                      for each in whole.plan.steps],
        }  # fmt: skip
    for name, model in (("feasts_event", Event), ("feasts_weighsheet", WeighSheet)):
        told[name] = model.objects.count()
    json.dump(told, sys.stdout, default=str)


if __name__ == "__main__":
    main()
