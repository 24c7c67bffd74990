"""Once and twice a day are 24 and 12 hours; an hour early is the usual; kept side jobs."""

from typing import Any

from django.db import migrations, models

ROUNDS_H = {16.0: 24.0, 8.0: 12.0}
USUAL_EARLY_MIN = 60.0


def rounds_by_the_day(apps: Any, _: Any) -> None:
    """Write intervals of rounds as they are meant now, and make kept shopping a trip."""
    for dish in apps.get_model("feasts", "Dish").objects.all():
        document = dish.document
        job = document.get("job") or {}
        changed = _tended(document.get("edits", ())) + _tended(job.get("steps", ()))
        if changed:
            dish.save(update_fields=["document"])
    for route in apps.get_model("feasts", "KeptRoute").objects.all():
        _tended(route.steps)
        for step in route.steps:
            if step.get("kind") == "buy":
                step["trip"] = "shop"
        route.save(update_fields=["steps"])


def as_early_as_usual(apps: Any, _: Any) -> None:
    """What was usual stays usual, though it is less now."""
    dishes = apps.get_model("feasts", "Dish").objects
    dishes.filter(early_max_min=USUAL_EARLY_MIN).update(early_max_min=None)


def _tended(steps: Any) -> int:
    """Change the intervals of some steps; how many there were."""
    found = [step for step in steps if step.get("every_h") in ROUNDS_H]
    for step in found:
        step["every_h"] = ROUNDS_H[step["every_h"]]
    return len(found)


class Migration(migrations.Migration):
    dependencies = [("feasts", "0007_touch")]

    operations = [
        migrations.AlterField("dish", "early_max_min", models.FloatField(blank=True, null=True)),
        migrations.AddField("keptroute", "job", models.JSONField(blank=True, null=True)),
        migrations.RunPython(rounds_by_the_day, migrations.RunPython.noop),
        migrations.RunPython(as_early_as_usual, migrations.RunPython.noop),
    ]
