"""A dish keeps its hue; those that are there have what they had by their place in the feast."""

from django.db import migrations, models

HUES = 8


def keep_hues(apps, schema_editor):
    """Give each dish the hue of its place in its feast."""
    dishes = apps.get_model("feasts", "Dish").objects
    for feast in apps.get_model("feasts", "Feast").objects.all():
        keys = dishes.filter(feast=feast).order_by("pk").values_list("pk", flat=True)
        for place, key in enumerate(keys):
            dishes.filter(pk=key).update(hue=place % HUES)


class Migration(migrations.Migration):
    dependencies = [
        ("feasts", "0011_put_off"),
    ]

    operations = [
        migrations.AddField(
            model_name="dish",
            name="hue",
            field=models.PositiveSmallIntegerField(default=0),
        ),
        migrations.RunPython(keep_hues, migrations.RunPython.noop),
    ]
