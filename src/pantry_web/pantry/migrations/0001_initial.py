"""Scales, packets and vessels; the one scale that a kitchen had becomes its first."""

import django.db.models.deletion
from django.db import migrations, models


def first_scales(apps, schema_editor):
    scale = apps.get_model("pantry", "Scale")
    scale.objects.bulk_create(
        scale(
            kitchen=kitchen,
            name="Kitchen scale",
            division_g=kitchen.scale_division_g,
            capacity_g=max(5000.0, 2.0 * kitchen.scale_division_g),
        )
        for kitchen in apps.get_model("kitchens", "Kitchen").objects.all()
    )


class Migration(migrations.Migration):
    initial = True

    dependencies = [
        ("kitchens", "0001_initial"),
    ]

    operations = [
        migrations.CreateModel(
            name="Vessel",
            fields=[
                (
                    "id",
                    models.BigAutoField(
                        auto_created=True, primary_key=True, serialize=False, verbose_name="ID"
                    ),
                ),
                ("name", models.CharField(max_length=40)),
                (
                    "shape",
                    models.CharField(
                        choices=[
                            ("box", "Box"),
                            ("round", "Round"),
                            ("tapered", "Tapered"),
                            ("bag", "Bag"),
                        ],
                        max_length=8,
                    ),
                ),
                (
                    "material",
                    models.CharField(
                        choices=[
                            ("glass", "Glass"),
                            ("food-plastic", "Food plastic"),
                            ("stoneware", "Stoneware"),
                            ("stainless", "Stainless steel"),
                            ("aluminium", "Bare aluminium"),
                            ("copper", "Bare copper"),
                            ("iron", "Bare iron"),
                            ("unknown", "Not known"),
                        ],
                        max_length=12,
                    ),
                ),
                ("length_mm", models.FloatField(blank=True, null=True)),
                ("width_mm", models.FloatField(blank=True, null=True)),
                ("diameter_mm", models.FloatField(blank=True, null=True)),
                ("top_mm", models.FloatField(blank=True, null=True)),
                ("bottom_mm", models.FloatField(blank=True, null=True)),
                ("depth_mm", models.FloatField(blank=True, null=True)),
                ("litres", models.FloatField(blank=True, null=True)),
                (
                    "kitchen",
                    models.ForeignKey(
                        on_delete=django.db.models.deletion.CASCADE,
                        related_name="vessels",
                        to="kitchens.kitchen",
                    ),
                ),
            ],
            options={
                "ordering": ["name", "pk"],
            },
        ),
        migrations.CreateModel(
            name="Ingredient",
            fields=[
                (
                    "id",
                    models.BigAutoField(
                        auto_created=True, primary_key=True, serialize=False, verbose_name="ID"
                    ),
                ),
                ("name", models.CharField(max_length=60)),
                (
                    "stands_for",
                    models.CharField(
                        choices=[
                            ("water", "Water"),
                            ("ice", "Ice"),
                            ("salt-table", "Table salt"),
                            ("salt-fine-sea", "Fine sea salt"),
                            ("salt-pickling", "Pickling salt"),
                            ("salt-compact-coarse", "Compact coarse salt"),
                            ("salt-hollow-flake", "Hollow flaky salt"),
                            ("salt-rock-pink", "Pink rock salt"),
                            ("curing-salt-1", "Curing salt no. 1"),
                            ("curing-salt-2", "Curing salt no. 2"),
                            ("nitrite-salt", "Nitrite salt"),
                            ("saltpetre", "Saltpetre"),
                            ("celery-powder", "Celery powder"),
                            ("sugar", "Sugar"),
                            ("brown-sugar", "Brown sugar"),
                            ("honey", "Honey"),
                            ("treacle", "Treacle or molasses"),
                            ("syrup", "Syrup"),
                            ("soy-sauce", "Soy sauce"),
                            ("fish-sauce", "Fish sauce"),
                            ("wine", "Wine"),
                            ("beer", "Beer"),
                            ("vinegar", "Vinegar"),
                            ("citrus-juice", "Lemon or lime juice"),
                            ("oil", "Oil"),
                            ("buttermilk", "Buttermilk"),
                            ("yoghurt", "Yoghurt"),
                            ("other-sauce", "Another sauce"),
                            ("pineapple", "Raw pineapple"),
                            ("papaya", "Raw papaya"),
                            ("kiwi", "Raw kiwi"),
                            ("pear", "Raw pear"),
                            ("ginger", "Raw ginger"),
                            ("spice", "Spices and herbs"),
                            ("garlic", "Garlic"),
                            ("herbs", "Fresh herbs"),
                        ],
                        max_length=24,
                    ),
                ),
                ("spoon", models.CharField(blank=True, max_length=12)),
                ("spoon_g", models.FloatField(blank=True, null=True)),
                ("nitrite_pct", models.FloatField(blank=True, null=True)),
                ("nitrate_pct", models.FloatField(blank=True, null=True)),
                ("sodium_mg", models.FloatField(blank=True, null=True)),
                ("stock_g", models.FloatField(blank=True, null=True)),
                (
                    "kitchen",
                    models.ForeignKey(
                        on_delete=django.db.models.deletion.CASCADE,
                        related_name="ingredients",
                        to="kitchens.kitchen",
                    ),
                ),
            ],
            options={
                "ordering": ["name", "pk"],
                "constraints": [
                    models.CheckConstraint(
                        condition=models.Q(("spoon_g", None), ("spoon_g__gt", 0), _connector="OR"),
                        name="a_spoon_weighs_something",
                    ),
                    models.CheckConstraint(
                        condition=models.Q(("stock_g", None), ("stock_g__gte", 0), _connector="OR"),
                        name="stock_not_negative",
                    ),
                ],
            },
        ),
        migrations.CreateModel(
            name="Scale",
            fields=[
                (
                    "id",
                    models.BigAutoField(
                        auto_created=True, primary_key=True, serialize=False, verbose_name="ID"
                    ),
                ),
                ("name", models.CharField(max_length=40)),
                ("division_g", models.FloatField()),
                ("capacity_g", models.FloatField()),
                (
                    "kitchen",
                    models.ForeignKey(
                        on_delete=django.db.models.deletion.CASCADE,
                        related_name="scales",
                        to="kitchens.kitchen",
                    ),
                ),
            ],
            options={
                "ordering": ["division_g", "pk"],
                "constraints": [
                    models.CheckConstraint(
                        condition=models.Q(
                            ("capacity_g__gt", models.F("division_g")), ("division_g__gt", 0)
                        ),
                        name="scale_reads_less_than_it_holds",
                    )
                ],
            },
        ),
        migrations.RunPython(first_scales, migrations.RunPython.noop),
    ]
