"""Whose cups; the fridge counts litres, fifteen for a piece; scales move to the pantry."""

from django.db import migrations, models


LITRES_A_PIECE = 15.0


def fridge_in_litres(apps, schema_editor):
    apps.get_model("kitchens", "Place").objects.filter(name="fridge").update(
        capacity=models.F("capacity") * LITRES_A_PIECE
    )


class Migration(migrations.Migration):
    dependencies = [
        ("kitchens", "0001_initial"),
        ("pantry", "0001_initial"),
    ]

    operations = [
        migrations.RemoveConstraint(
            model_name="kitchen",
            name="scale_reads_something",
        ),
        migrations.RemoveField(
            model_name="kitchen",
            name="scale_division_g",
        ),
        migrations.AddField(
            model_name="kitchen",
            name="cups",
            field=models.CharField(
                choices=[
                    ("us", "US: cup 237 ml, tablespoon 14.8 ml"),
                    ("metric", "metric: cup 250 ml, tablespoon 15 ml"),
                    ("australian", "Australian: cup 250 ml, tablespoon 20 ml"),
                    ("imperial", "imperial: cup of half a pint, tablespoon 15 ml"),
                ],
                default="us",
                max_length=10,
            ),
        ),
        migrations.RunPython(fridge_in_litres, migrations.RunPython.noop),
    ]
