"""The `kitchen` document: a kitchen whole, with its pantry, its hours and every feast."""

from typing import Annotated, Any, Literal

from pydantic import Field

from pantry_core.document import PLAIN_LINE, Document
from pantry_core.formats.feast import DishDocument, FeastDocument, Name
from pantry_core.rules.profiles import ProfileName

MOST_THINGS, MOST_DAYS, MOST_FEASTS = 500, 2000, 400
Day = Literal["mon", "tue", "wed", "thu", "fri", "sat", "sun"]
Key = Annotated[str, Field(max_length=120), PLAIN_LINE]
Places = Annotated[dict[Key, float], Field(max_length=20)]
Week = dict[Day, Annotated[tuple[str, str], Field(strict=False)]]
"""The hours of each day that has some: from and to, as in 08:00."""


class SpanDocument(Document):
    """From when to when."""

    begins: str
    ends: str


class DayDocument(Document):
    """A day of the year under a name."""

    name: Name
    day: str


class ChangedDayDocument(Document):
    """A day on which the hours are others: off|work|shut|open, with hours where there are some."""

    day: str
    kind: str
    begins: str | None = None
    ends: str | None = None


class MishapDocument(SpanDocument):
    """What befell the kitchen or a dish: power-out|fridge-warm|left-out; read at [°C]."""

    kind: str
    temperature_c: float | None = None


class ScaleDocument(Document):
    """A scale: it reads to a division [g], and holds so much [g]."""

    name: Name
    division_g: float
    capacity_g: float


class PacketDocument(Document):
    """A packet: what it is, its label [%; mg in 100 g], its weighed spoon [g], its stock [g]."""

    name: Name
    stands_for: str
    spoon: str = ""
    spoon_g: float | None = None
    nitrite_pct: float | None = None
    nitrate_pct: float | None = None
    sodium_mg: float | None = None
    stock_g: float | None = None


class VesselDocument(Document):
    """A vessel by its inner measures [mm], or by what it holds [l]."""

    name: Name
    shape: str
    material: str
    length_mm: float | None = None
    width_mm: float | None = None
    diameter_mm: float | None = None
    top_mm: float | None = None
    bottom_mm: float | None = None
    depth_mm: float | None = None
    litres: float | None = None


class RouteDocument(Document):
    """Steps kept for another time, as `dish` answers with them; of a side job what it is of."""

    name: Name
    steps: Annotated[tuple[dict[str, Any], ...], Field(strict=False, max_length=40)]
    job: dict[str, Any] | None = None


class BoughtDocument(Document):
    """A line of the shopping list that is bought."""

    key: Key
    at: str


class PlannedDocument(Document):
    """A step of the plan that the cook goes by; the dish by its id in the document."""

    dish: Key
    step: Key
    start: str
    end: str


PlanKept = Annotated[tuple[PlannedDocument, ...], Field(strict=False, max_length=1600)] | None


class KitchenDish(DishDocument):
    """A dish with its vessel, by its place in the list of vessels, and what was bought for it."""

    vessel: Annotated[int, Field(ge=0)] | None = None
    bought: Annotated[tuple[BoughtDocument, ...], Field(strict=False, max_length=200)] = ()
    mishaps: Annotated[tuple[MishapDocument, ...], Field(strict=False, max_length=200)] = ()


class KitchenFeast(FeastDocument):
    """A feast as by itself; removed, if it was; with the plan that the cook goes by."""

    removed_at: str | None = None
    dishes: Annotated[tuple[KitchenDish, ...], Field(strict=False, max_length=40)] = ()
    kept_plan: PlanKept = None
    first_plan: PlanKept = None


class KitchenDocument(Document):
    """A kitchen: what the house is like, what stands in it, and what was and will be eaten."""

    format: Literal["pantry-clock/kitchen-1"] = "pantry-clock/kitchen-1"
    name: Name
    tz: str
    units: str
    clock_face: Literal["24", "12"] = "24"
    profile: ProfileName
    cups: str
    wake: str
    sleep: str
    cooks: Annotated[int, Field(ge=1, le=20)]
    country: str = ""
    shop: Week = {}
    work: Week = {}
    places: Places = {}
    fridge_unit: Literal["", "l", "qt", "cu ft"] = ""
    own_days: Annotated[tuple[DayDocument, ...], Field(strict=False, max_length=MOST_DAYS)] = ()
    changed_days: Annotated[
        tuple[ChangedDayDocument, ...], Field(strict=False, max_length=MOST_DAYS)
    ] = ()
    absences: Annotated[tuple[SpanDocument, ...], Field(strict=False, max_length=MOST_DAYS)] = ()
    mishaps: Annotated[tuple[MishapDocument, ...], Field(strict=False, max_length=MOST_DAYS)] = ()
    scales: Annotated[tuple[ScaleDocument, ...], Field(strict=False, max_length=MOST_THINGS)] = ()
    packets: Annotated[tuple[PacketDocument, ...], Field(strict=False, max_length=MOST_THINGS)] = ()
    vessels: Annotated[tuple[VesselDocument, ...], Field(strict=False, max_length=MOST_THINGS)] = ()
    routes: Annotated[tuple[RouteDocument, ...], Field(strict=False, max_length=MOST_THINGS)] = ()
    feasts: Annotated[tuple[KitchenFeast, ...], Field(strict=False, max_length=MOST_FEASTS)] = ()
