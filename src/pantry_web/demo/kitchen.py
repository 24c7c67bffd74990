"""The demo: the kitchen at Quince Lane, five dishes for Lantern Night, the gammon under way.

A trout for tonight is in the smoker, with readings.
"""

from datetime import UTC, datetime

from django.db import transaction

from pantry_web.demo.earlier import cook_earlier_nights, go_by_the_plan, work_out
from pantry_web.demo.probe import put_in_the_probe
from pantry_web.feasts.actions.add_dish import add_dish
from pantry_web.feasts.actions.log.begin_step import begin_step
from pantry_web.feasts.actions.log.turn import turn
from pantry_web.feasts.actions.log.write_down import write_down
from pantry_web.feasts.documents import Document
from pantry_web.feasts.models import Dish, Feast
from pantry_web.kitchens.actions.found_kitchen import found_kitchen
from pantry_web.kitchens.actions.set_house import set_house
from pantry_web.kitchens.models import Absence, Cook, Kitchen
from pantry_web.pantry.models import Ingredient, Scale, Vessel
from pantry_web.planning.looking import outlook
from pantry_web.planning.outlook import Outlook

COOK = "quince"
PASSWORD = "lantern-night"  # noqa: S105 - a demo that answers on this machine only
ZONE = "Europe/London"

SERVE_AT = datetime(2027, 3, 22, 18, 30, tzinfo=UTC)
STANDS_AT = datetime(2027, 3, 18, 19, 12, tzinfo=UTC)

GAMMON: Document = {
    "piece": {"cut": "gammon-flat", "mass_g": 2380.0, "thickness_mm": 50.0, "bone_share": 0.0},
    "cure": {
        "method": "even-brine", "school": "model", "target_salt_pct": 2.0, "sugar_pct": 1.5,
        "water_g": 2400.0, "curing_salt": "cure-1",
    },
}  # fmt: skip
TROUT: Document = {
    "piece": {
        "cut": "trout-fillet", "mass_g": 1450.0, "thickness_mm": 22.0, "bone_share": 0.0,
        "will_be": "smoked",
    },
    "cure": {
        "method": "strong-brine", "school": "model", "target_salt_pct": 1.8,
        "brine_salt_pct": 9.0, "water_g": 2000.0, "curing_salt": None,
    },
    "heat": {"way": "smoke"},
}  # fmt: skip
DUCK: Document = {
    "piece": {"cut": "duck", "mass_g": 2200.0, "thickness_mm": 45.0, "bone_share": 0.3},
    "cure": {
        "method": "dry-brine", "school": "model", "target_salt_pct": 1.1, "curing_salt": None,
    },
}  # fmt: skip
GOAT: Document = {
    "piece": {
        "cut": "lamb-leg", "mass_g": 1600.0, "thickness_mm": 55.0, "bone_share": 0.0,
        "frozen": True,
    },
    "cure": {
        "method": "dairy-marinade", "school": "model", "target_salt_pct": 1.2,
        "curing_salt": None,
        "sauces": [{"text": "600 g yoghurt", "name": "yoghurt", "mass_g": 600.0}],
    },
}  # fmt: skip
PICKLE: Document = {
    "piece": {"cut": "vegetable", "mass_g": 900.0, "thickness_mm": 30.0, "bone_share": 0.0},
    "cure": {
        "method": "quick-pickle", "school": "model", "target_salt_pct": 1.5, "sugar_pct": 4.0,
        "water_g": 500.0, "curing_salt": None,
    },
}  # fmt: skip
OTHERS = (
    ("Alder-smoked trout", TROUT), ("Bay-salted duck", DUCK), ("Yoghurt goat", GOAT),
    ("Quick pickle", PICKLE),
)  # fmt: skip
"""The other dishes of Lantern Night."""
ROOTS_G = 2000.0

BRISKET: Document = {
    "piece": {"cut": "brisket", "mass_g": 3000.0, "thickness_mm": 60.0, "bone_share": 0.0},
    "cure": {
        "method": "even-brine", "school": "model", "target_salt_pct": 2.0, "sugar_pct": 1.0,
        "water_g": 3000.0, "curing_salt": "cure-1",
    },
    "heat": {"way": "braise"},
}  # fmt: skip
TONIGHT: Document = {
    "piece": {
        "cut": "trout", "mass_g": 1050.0, "count": 3, "thickness_mm": 38.0, "will_be": "smoked",
    },
    "cure": {
        "method": "strong-brine", "brine_salt_pct": 9.0, "water_g": 2000.0, "curing_salt": None,
    },
    "heat": {"way": "smoke"},
}  # fmt: skip
IN_THE_SMOKE_AT = datetime(2027, 3, 18, 18, 5, tzinfo=UTC)
TONIGHT_AT = datetime(2027, 3, 18, 20, 30, tzinfo=UTC)
ROOK_SUPPER_AT = datetime(2027, 4, 4, 18, 0, tzinfo=UTC)


def stock_the_pantry(kitchen: Kitchen) -> None:
    """Two scales, a few packets, and what there is to brine in."""
    for name, division_g, capacity_g in (
        ("Kitchen scale", 1.0, 5000.0),
        ("Pocket scale", 0.1, 500.0),
    ):
        Scale.objects.create(
            kitchen=kitchen, name=name, division_g=division_g, capacity_g=capacity_g
        )
    for packet in (
        {"name": "Grey sea salt, fine", "stands_for": "salt-fine-sea", "spoon": "tbsp",
         "spoon_g": 15.5, "stock_g": 850.0},
        {"name": "Curing salt no. 1", "stands_for": "curing-salt-1", "stock_g": 180.0},
        {"name": "Black treacle", "stands_for": "treacle", "stock_g": 40.0},
        {"name": "Dark soy sauce", "stands_for": "soy-sauce", "sodium_mg": 6100.0,
         "stock_g": 300.0},
    ):  # fmt: skip
        Ingredient.objects.create(kitchen=kitchen, **packet)
    Vessel.objects.create(
        kitchen=kitchen, name="Big crock", shape="round", material="stoneware",
        diameter_mm=260.0, depth_mm=220.0,
    )  # fmt: skip
    Vessel.objects.create(
        kitchen=kitchen, name="White tub", shape="tapered", material="food-plastic",
        top_mm=300.0, bottom_mm=250.0, depth_mm=200.0,
    )  # fmt: skip
    Vessel.objects.create(
        kitchen=kitchen, name="Bag of 6 l", shape="bag", material="food-plastic", litres=6.0
    )


@transaction.atomic
def load_whole() -> None:
    """Load the whole demo unless it is there: all five dishes, and a supper that comes too soon.

    Its plans are worked out, so that the first page is complete.
    """
    if Cook.objects.filter(username=COOK).exists():
        return
    load()
    kitchen = Kitchen.objects.get(name="Quince Lane")
    lantern = Feast.objects.get(kitchen=kitchen)
    lay_the_table(kitchen, lantern)
    supper = Feast.objects.create(
        kitchen=kitchen, name="Rook Supper", serve_at=ROOK_SUPPER_AT, time_zone=ZONE, heads=6
    )
    add_dish(supper, "Peppered brisket", BRISKET)
    _smoke_tonight(kitchen)
    _roots_in_the_broth(lantern)
    earlier = {"Treacle gammon": GAMMON, **dict(OTHERS)}
    cook_earlier_nights(kitchen, Cook.objects.get(username=COOK), earlier, ZONE)
    _go_by_the_last_time(lantern)
    go_by_the_plan(kitchen, lantern, STANDS_AT)
    for feast in Feast.objects.filter(kitchen=kitchen, serve_at__gte=STANDS_AT):
        work_out(feast, kitchen, STANDS_AT)


def _go_by_the_last_time(lantern: Feast) -> None:
    """The dishes of this Lantern Night were copied from those of the one before."""
    nights = Feast.objects.filter(kitchen=lantern.kitchen, serve_at__lt=lantern.serve_at)
    before = nights.filter(name=lantern.name).latest("serve_at")
    for dish in before.dishes.all():
        lantern.dishes.filter(name=dish.name).update(copied_from=dish)


def _smoke_tonight(kitchen: Kitchen) -> None:
    """Trout for tonight, in the smoker, read twice."""
    cook = Cook.objects.get(username=COOK)
    feast = Feast.objects.create(
        kitchen=kitchen, name="Heron Supper", serve_at=TONIGHT_AT, time_zone=ZONE, heads=3
    )
    trout = add_dish(feast, "Smoked trout", TONIGHT)
    _Hands(cook, kitchen, trout).smoke()
    put_in_the_probe(kitchen, cook, trout, IN_THE_SMOKE_AT, STANDS_AT)


def lay_the_table(kitchen: Kitchen, feast: Feast) -> None:
    """The other dishes of Lantern Night, for two cooks and an oven of two shelves."""
    kitchen.places.filter(name="oven").update(capacity=2.0)
    set_house(kitchen, {"cooks": 2})
    for name, document in OTHERS:
        add_dish(feast, name, document)


def _roots_in_the_broth(feast: Feast) -> None:
    """What cooks in the gammon's broth once the gammon has left it."""
    gammon = feast.dishes.get(name="Treacle gammon")
    wait = {"dish": str(gammon.pk), "step": "simmer"}
    document = {
        "job": {"name": "roots", "made_g": ROOTS_G},
        "edits": [{"step": "in-broth", "after": [wait]}],
    }
    add_dish(feast, "Roots in the broth", document)


@transaction.atomic
def load() -> None:
    """Load Quince Lane with the gammon alone, unless it is there."""
    if Cook.objects.filter(username=COOK).exists():
        return
    cook = Cook.objects.create_user(COOK, password=PASSWORD)
    kitchen = found_kitchen(cook, "Quince Lane", ZONE, is_demo=True)
    Absence.objects.create(
        kitchen=kitchen,
        begins=datetime(2027, 3, 13, 9, 0, tzinfo=UTC),
        ends=datetime(2027, 3, 13, 20, 0, tzinfo=UTC),
    )
    stock_the_pantry(kitchen)
    feast = Feast.objects.create(
        kitchen=kitchen, name="Lantern Night", serve_at=SERVE_AT, time_zone=ZONE, heads=8
    )
    _Hands(cook, kitchen, _gammon(kitchen, feast)).work()
    kitchen.stands_at = STANDS_AT
    kitchen.save()


def _gammon(kitchen: Kitchen, feast: Feast) -> Dish:
    crock = kitchen.vessels.get(name="Big crock")
    return add_dish(feast, "Treacle gammon", GAMMON, crock)


class _Hands:
    """Whoever did the work so far, ticking as they went."""

    def __init__(self, cook: Cook, kitchen: Kitchen, dish: Dish) -> None:
        self.cook, self.kitchen, self.dish = cook, kitchen, dish

    def work(self) -> None:
        """Buy, make the brine, trim, put in, and go on the daily round."""
        self._begin("buy", 5, 10, 5)
        self._begin("make-brine", 5, 20, 40)
        self._begin("trim", 6, 9, 30)
        write_down(
            self._at(6, 9, 32),
            self.cook,
            mass_g=2380.0,
            temperature_c=3.5,
            note="2.61 kg in the shop; brine fridge-cold before it went in.",
        )
        self._begin("brine", 6, 9, 40)
        for day, hour, minute in (
            (7, 9, 15), (8, 8, 50), (9, 8, 40), (10, 8, 30), (11, 8, 20), (12, 8, 10),
            (13, 8, 5), (13, 20, 30), (14, 19, 40), (15, 19, 38), (16, 19, 35), (17, 19, 30),
        ):  # fmt: skip
            turn(self._at(day, hour, minute), self.cook)

    def smoke(self) -> None:
        """From the shop into the smoker, with two readings."""
        self._begin("buy", 17, 16, 0)
        self._begin("make-brine", 17, 17, 5)
        self._begin("trim", 18, 6, 40)
        self._begin("brine", 18, 7, 5)
        self._begin("lift", 18, 11, 10)
        self._begin("dry", 18, 12, 0)
        self._begin("smoke-low", 18, 17, 0)
        self._begin("smoke-hot", 18, 18, 5)
        for minute, hour, celsius in ((35, 18, 41.0), (5, 19, 53.0)):
            write_down(self._at(18, hour, minute), self.cook, temperature_c=celsius)

    def _begin(self, key: str, day: int, hour: int, minute: int) -> None:
        begin_step(self._at(day, hour, minute), key, self.cook)

    def _at(self, day: int, hour: int, minute: int) -> Outlook:
        moment = datetime(2027, 3, day, hour, minute, tzinfo=UTC)
        return outlook(self.dish, self.kitchen, moment)
