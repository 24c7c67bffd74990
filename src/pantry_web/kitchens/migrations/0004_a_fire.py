"""Every kitchen has a place for a fire: coals for grill and spit."""

from typing import Any

from django.db import migrations


def lay(apps: Any, _: Any) -> None:
    """Lay a fire where there is none."""
    place = apps.get_model("kitchens", "Place")
    for kitchen in apps.get_model("kitchens", "Kitchen").objects.all():
        place.objects.get_or_create(kitchen=kitchen, name="fire", defaults={"capacity": 1.0})


class Migration(migrations.Migration):
    dependencies = [("kitchens", "0003_country_and_own_days")]

    operations = [migrations.RunPython(lay, migrations.RunPython.noop)]
