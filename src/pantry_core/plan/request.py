"""What is to be planned: the `plan` document."""

from typing import Annotated, Literal

from pydantic import Field, ValidationInfo, field_validator

from pantry_core import quantities
from pantry_core.document import Document, wrong
from pantry_core.heat.media import MediumName
from pantry_core.text import either, say

MOST_DISHES = 40
MOST_HOURS = 40
"""Entries of a week's hours."""
MOST_HEATS = 10
"""Other temperatures that a step can take."""
SHARES_WITHIN_C = 25.0
"""Dishes share an oven whose temperatures differ by no more (common practice)."""
MOST_AFTER = 10
"""Steps that one step can wait for."""
ENDS = ("inside_c", "tender", "look", "cold_c")

Name = Annotated[str, Field(min_length=1, max_length=100)]
Hours = Annotated[float, Field(ge=0, le=24 * 366)]
DayName = Literal["mon", "tue", "wed", "thu", "fri", "sat", "sun"]
WEEKDAYS: tuple[DayName, ...] = ("mon", "tue", "wed", "thu", "fri", "sat", "sun")


class DayHours(Document):
    """Hours of some days of the week, or of some dates; of all days where both are absent.

    Local times of day; `to` may be 24:00.
    """

    days: Annotated[tuple[DayName, ...], Field(strict=False, max_length=7)] | None = None
    dates: Annotated[tuple[str, ...], Field(strict=False, max_length=400)] = ()
    from_: Annotated[str, Field(alias="from")]
    to: str


class Opening(Document):
    """When a place is open: hours by weekday, and dates on which it is shut all day."""

    hours: Annotated[tuple[DayHours, ...], Field(strict=False, max_length=MOST_HOURS)] = ()
    closed: Annotated[tuple[str, ...], Field(strict=False, max_length=400)] = ()


class Day(Document):
    """Waking hours, local times of day; when longer work is done, and whether half hours are liked.

    Without `work` it is done in all waking hours.
    """

    wake: str = "07:00"
    sleep: str = "22:30"
    work: Annotated[tuple[DayHours, ...], Field(strict=False, max_length=MOST_HOURS)] | None = None
    half: bool = False


def in_order(max_h: float | None, info: ValidationInfo) -> float | None:
    """The longest time of a window [h], which is no shorter than its shortest.

    Raises: pydantic_core.PydanticCustomError where it is.
    """
    least = info.data.get("min_h", 0.0)
    if max_h is not None and max_h < least:
        raise wrong(
            "window",
            say(
                "at most {max_h} contradicts at least {least}",
                max_h=quantities.Hours(max_h),
                least=quantities.Hours(least),
            ),
        )
    return max_h


class Away(Document):
    """A time in which nobody is at home."""

    from_: Annotated[str, Field(alias="from")]
    to: str


class After(Document):
    """A step of another dish that is waited for, and how long after its end [h]."""

    dish: Name
    step: Name
    min_h: Hours = 0.0
    max_h: Hours | None = None

    @field_validator("max_h")
    @classmethod
    def _after_min(cls, max_h: float | None, info: ValidationInfo) -> float | None:
        return in_order(max_h, info)


HeatC = Annotated[float, Field(ge=-40, le=600)]


class OtherHeat(Document):
    """Another temperature that a step can take [°C], with its window there [h]."""

    heat_c: HeatC
    min_h: Hours
    prefer_h: Hours | None = None
    max_h: Hours | None = None

    @field_validator("max_h")
    @classmethod
    def _after_min(cls, max_h: float | None, info: ValidationInfo) -> float | None:
        return in_order(max_h, info)


class StepRequest(Document):
    """One step of a dish: windows [h], hands [min], and what has happened of it so far."""

    id: Name
    name: Annotated[str, Field(max_length=200)] | None = None
    kind: str | None = None
    place: str | None = None
    min_h: Hours = 0.0
    prefer_h: Hours | None = None
    max_h: Hours | None = None
    hands_min: Annotated[float, Field(ge=0, le=24 * 60)] = 0.0
    attended: bool = False
    uses: Annotated[float, Field(ge=0, le=10_000)] = 1.0
    every_h: Annotated[float, Field(ge=0.25, le=24 * 60)] | None = None
    rounds_done: Annotated[tuple[str, ...], Field(strict=False)] = ()
    started_at: str | None = None
    ended_at: str | None = None
    locked_start: str | None = None
    trip: Name | None = None
    after: Annotated[tuple[After, ...], Field(strict=False, max_length=MOST_AFTER)] = ()
    heat_c: HeatC | None = None
    heats: Annotated[tuple[OtherHeat, ...], Field(strict=False, max_length=MOST_HEATS)] = ()
    title: Annotated[str, Field(max_length=200)] | None = None
    text: Annotated[str, Field(max_length=1000)] | None = None
    tend: Annotated[str, Field(max_length=1000)] | None = None
    until: dict[str, float | bool] | None = None
    medium: MediumName | None = None
    medium_c: HeatC | None = None
    covered: bool = False
    form: Annotated[str, Field(max_length=20)] | None = None
    count: Annotated[int, Field(ge=1, le=500)] | None = None
    thickness_mm: Annotated[float, Field(gt=0, le=400)] | None = None
    with_piece: bool = True

    @field_validator("until")
    @classmethod
    def _a_known_end(cls, until: dict[str, float | bool] | None) -> dict[str, float | bool] | None:
        if until is not None and not set(until) <= set(ENDS):
            raise wrong(
                "until",
                say("a step goes on until {ends}; use one of them", ends=either(tuple(ENDS))),
            )
        return until

    @field_validator("max_h")
    @classmethod
    def _after_min(cls, max_h: float | None, info: ValidationInfo) -> float | None:
        return in_order(max_h, info)


class DishRequest(Document):
    """One dish: its own hour where it has one, how early and late it may be [min], its steps."""

    id: Name
    name: Annotated[str, Field(max_length=200)] | None = None
    early_max_min: Annotated[float, Field(ge=0, le=24 * 60)] = 0.0
    late_max_min: Annotated[float, Field(ge=0, le=24 * 60)] = 0.0
    serve_at: str | None = None
    steps: Annotated[tuple[StepRequest, ...], Field(strict=False, min_length=1, max_length=40)]

    @field_validator("steps")
    @classmethod
    def _told_apart(cls, steps: tuple[StepRequest, ...]) -> tuple[StepRequest, ...]:
        if len({step.id for step in steps}) < len(steps):
            raise wrong("twice", "two steps have the same id; each needs its own")
        return steps


Capacity = Annotated[float, Field(ge=0, le=10_000)]
RoomUnit = Literal["l", "qt", "cu ft"]


class Place(Document):
    """What a place holds at once, None: any amount; with `unit` its capacity is in litres [l].

    The unit is the one in which sentences say it. Steps that lie in it together and have a
    temperature differ in it by at most `shares_within_c` [°C].
    """

    capacity: Capacity | None
    unit: RoomUnit | None = None
    shares_within_c: Annotated[float, Field(ge=0, le=600)] = SHARES_WITHIN_C


class HouseRequest(Document):
    """A feast without its dishes: the present moment, its hour, and the house.

    `places` hold so much at once, a number or None being the capacity; one without an entry in
    `open` is always open.
    """

    format: Literal["pantry-clock/1"] = "pantry-clock/1"
    now: str
    tz: str
    serve_at: str
    day: Day = Day()
    away: Annotated[tuple[Away, ...], Field(strict=False, max_length=200)] = ()
    cooks: Annotated[int, Field(ge=1, le=20)] = 1
    places: dict[str, Place | Capacity | None] = {}
    open: dict[str, Opening] = {}


class PlanRequest(HouseRequest):
    """A feast: the present moment, its hour, the house and its dishes.

    `least_bad` asks for the plan that breaks least where there is none.
    """

    least_bad: bool = False

    dishes: Annotated[
        tuple[DishRequest, ...], Field(strict=False, min_length=1, max_length=MOST_DISHES)
    ]

    @field_validator("dishes")
    @classmethod
    def _told_apart(cls, dishes: tuple[DishRequest, ...]) -> tuple[DishRequest, ...]:
        if len({dish.id for dish in dishes}) < len(dishes):
            raise wrong("twice", "two dishes have the same id; each needs its own")
        return dishes
