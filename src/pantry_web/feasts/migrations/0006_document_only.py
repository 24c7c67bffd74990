"""What the document tells is kept nowhere else."""

from django.db import migrations, models

TOLD = (
    "job", "cut", "mass_g", "thickness_mm", "is_thickness_guessed", "bone_share", "is_frozen",
    "method", "target_salt_pct", "sugar_pct", "water_g", "cure", "nitrite_pct", "ingoing_ppm",
    "brine_salt_pct", "injection_share", "sauces", "spices", "customs", "school",
)  # fmt: skip


class Migration(migrations.Migration):
    dependencies = [("feasts", "0005_document")]

    operations = [
        *(
            migrations.RemoveConstraint("dish", name)
            for name in (
                "dish_has_mass_and_thickness", "bone_is_a_share", "salt_not_negative",
                "brine_has_water",
            )
        ),
        *(migrations.RemoveField("dish", name) for name in TOLD),
        migrations.AlterField("dish", "document", models.JSONField()),
        migrations.DeleteModel("Step"),
        migrations.DeleteModel("Solve"),
    ]  # fmt: skip
