"""A touch is written down; what has begun goes on by the way of cooking that it had."""

from typing import Any

from django.db import migrations, models

from pantry_web.feasts.migrations._guard import guarding

COOKED: dict[str, str] = {
    "pork-chop": "bake", "beef-steak": "bake", "lamb-chop": "bake", "duck-breast": "roast",
    "duck-leg": "roast", "goose-leg": "roast",
}  # fmt: skip
"""How these cuts were cooked where nobody said, until now."""
BY_FORM = ("cubes", "strips", "slices", "ground")
"""Cut small they were cooked as the cut is."""
AS_A_ROAST: dict[str, str] = {
    "gammon-boned": "simmer-glaze", "gammon-flat": "simmer-glaze", "gammon-bone": "simmer-glaze",
    "pork-hock": "simmer", "pork-loin": "roast", "pork-shoulder": "slow-oven",
    "pork-ribs": "slow-oven", "young-pig": "roast", "belly-skinless": "slow-oven",
    "belly-skin": "slow-oven", "brisket": "simmer", "chuck": "braise", "silverside": "simmer",
    "beef-rib": "roast", "beef-cheek": "braise", "short-rib": "braise", "tongue": "simmer",
    "lamb-leg": "roast", "lamb-leg-bone": "roast", "lamb-shoulder": "slow-oven",
    "lamb-chump": "roast", "lamb-rack": "roast", "lamb-shank": "braise", "young-goat": "roast",
    "venison": "roast", "game-shoulder": "braise", "game-loin": "roast", "rabbit": "braise",
    "chicken": "roast", "chicken-breast": "bake", "chicken-thigh": "bake",
    "chicken-drumstick": "bake", "chicken-wing": "bake", "duck": "roast", "turkey": "roast",
    "turkey-crown": "roast", "turkey-boned": "roast", "turkey-leg": "roast", "goose": "roast",
    "quail": "roast", "pheasant": "roast",
}  # fmt: skip


def keep_the_way(apps: Any, _: Any) -> None:
    """Write down how it is cooked, where a change of what is usual would change it."""
    for dish in apps.get_model("feasts", "Dish").objects.prefetch_related("events"):
        document = dish.document
        piece, heat = document.get("piece"), document.get("heat") or {}
        is_begun = dish.events.exists() or bool(document.get("edits"))
        if not piece or heat.get("way") or not is_begun or piece.get("will_be") == "smoked":
            continue
        way = COOKED.get(piece["cut"])
        if way is None and piece.get("form") in BY_FORM:
            way = AS_A_ROAST.get(piece["cut"])
        if way is not None:
            dish.document = {**document, "heat": {**heat, "way": way}}
            dish.save(update_fields=["document"])


class Migration(migrations.Migration):
    dependencies = [("feasts", "0006_document_only")]

    operations = [
        migrations.AlterField(
            "event", "what",
            models.CharField(max_length=20, choices=[
                ("weighed", "Weighed"), ("line-weighed", "Line Weighed"), ("put-in", "Put In"),
                ("turned", "Turned"), ("lifted", "Lifted"), ("tasted", "Tasted"),
                ("temperature-read", "Temperature Read"), ("touched", "Touched"),
                ("step-started", "Step Started"), ("step-ended", "Step Ended"),
                ("noted", "Noted"), ("withdrawn", "Withdrawn"),
            ]),
        ),
        migrations.AddField(
            "event", "touch",
            models.CharField(max_length=10, blank=True, default="", choices=[
                ("tender", "tender: a fork turns in it"), ("looks-done", "it looks done"),
                ("not-yet", "not yet"),
            ]),
            preserve_default=False,
        ),
        migrations.RunSQL(guarding(), migrations.RunSQL.noop),
        migrations.RunPython(keep_the_way, migrations.RunPython.noop),
    ]  # fmt: skip
