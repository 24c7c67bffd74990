"""Every method, curing salt and custom; what was pink was so by no. 1."""

import django.db.models.deletion
from django.db import migrations, models


from pantry_web.feasts.migrations._guard import guarding


def pink_by_no_1(apps, schema_editor):
    apps.get_model("feasts", "Dish").objects.filter(is_pink=True).update(cure="cure-1")


class Migration(migrations.Migration):
    dependencies = [
        ("feasts", "0002_append_only"),
        ("pantry", "0001_initial"),
    ]

    operations = [
        migrations.RemoveConstraint(
            model_name="dish",
            name="brine_has_water",
        ),
        migrations.AddField(
            model_name="dish",
            name="brine_salt_pct",
            field=models.FloatField(blank=True, null=True),
        ),
        migrations.AddField(
            model_name="dish",
            name="cure",
            field=models.CharField(
                blank=True,
                choices=[
                    ("cure-1", "Curing salt no. 1"),
                    ("cure-2", "Curing salt no. 2"),
                    ("nitrite-salt", "Nitrite salt"),
                    ("saltpetre", "Saltpetre"),
                    ("celery", "Celery powder"),
                ],
                max_length=12,
            ),
        ),
        migrations.AddField(
            model_name="dish",
            name="customs",
            field=models.JSONField(blank=True, default=dict),
        ),
        migrations.AddField(
            model_name="dish",
            name="ingoing_ppm",
            field=models.FloatField(blank=True, null=True),
        ),
        migrations.AddField(
            model_name="dish",
            name="injection_share",
            field=models.FloatField(blank=True, null=True),
        ),
        migrations.AddField(
            model_name="dish",
            name="nitrite_pct",
            field=models.FloatField(blank=True, null=True),
        ),
        migrations.AddField(
            model_name="dish",
            name="recipe",
            field=models.TextField(blank=True, max_length=8000),
        ),
        migrations.AddField(
            model_name="dish",
            name="sauces",
            field=models.JSONField(blank=True, default=list),
        ),
        migrations.AddField(
            model_name="dish",
            name="spices",
            field=models.JSONField(blank=True, default=list),
        ),
        migrations.AddField(
            model_name="dish",
            name="vessel",
            field=models.ForeignKey(
                blank=True,
                null=True,
                on_delete=django.db.models.deletion.SET_NULL,
                related_name="+",
                to="pantry.vessel",
            ),
        ),
        migrations.AddField(
            model_name="event",
            name="line",
            field=models.CharField(blank=True, max_length=80),
        ),
        migrations.AddField(
            model_name="weighsheet",
            name="weighed",
            field=models.JSONField(default=dict),
        ),
        migrations.AlterField(
            model_name="dish",
            name="method",
            field=models.CharField(
                choices=[
                    ("even-brine", "Even brine"),
                    ("strong-brine", "Strong brine, timed"),
                    ("dry-cure", "Dry cure, bagged"),
                    ("heaped-cure", "Dry cure, heaped, washed off"),
                    ("dry-brine", "Dry brine"),
                    ("needle-brine", "Needle and brine"),
                    ("needle", "Needle alone"),
                    ("oil-marinade", "Oil and herbs"),
                    ("sauce-marinade", "Salty sauce, sugar, fruit"),
                    ("acid-marinade", "Wine, vinegar, citrus"),
                    ("dairy-marinade", "Buttermilk or yoghurt"),
                    ("herb-marinade", "Salted green herbs and oil"),
                    ("quick-pickle", "Quick pickle"),
                ],
                max_length=16,
            ),
        ),
        migrations.AlterField(
            model_name="event",
            name="what",
            field=models.CharField(
                choices=[
                    ("weighed", "Weighed"),
                    ("line-weighed", "Line Weighed"),
                    ("put-in", "Put In"),
                    ("turned", "Turned"),
                    ("lifted", "Lifted"),
                    ("tasted", "Tasted"),
                    ("temperature-read", "Temperature Read"),
                    ("step-started", "Step Started"),
                    ("step-ended", "Step Ended"),
                    ("noted", "Noted"),
                    ("withdrawn", "Withdrawn"),
                ],
                max_length=20,
            ),
        ),
        migrations.RunPython(pink_by_no_1, migrations.RunPython.noop),
        migrations.RemoveField(
            model_name="dish",
            name="is_pink",
        ),
        migrations.AddConstraint(
            model_name="dish",
            constraint=models.CheckConstraint(
                condition=models.Q(
                    models.Q(
                        ("method__in", ["even-brine", "strong-brine", "needle-brine"]),
                        _negated=True,
                    ),
                    ("water_g__gt", 0),
                    _connector="OR",
                ),
                name="brine_has_water",
            ),
        ),
        migrations.RunSQL(guarding(), migrations.RunSQL.noop),
    ]
