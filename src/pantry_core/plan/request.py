"""What is to be planned: the `plan` document."""

from typing import Annotated, Literal

from pydantic import Field, ValidationInfo, field_validator

from pantry_core.document import Document, wrong

MOST_DISHES = 40
ENDS = ("inside_c", "tender", "look", "cold_c")

Name = Annotated[str, Field(min_length=1, max_length=100)]
Hours = Annotated[float, Field(ge=0, le=24 * 366)]


class Day(Document):
    """Waking hours, local times of day."""

    wake: str = "07:00"
    sleep: str = "22:30"


class Away(Document):
    """A time in which nobody is at home."""

    from_: Annotated[str, Field(alias="from")]
    to: str


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
    title: Annotated[str, Field(max_length=200)] | None = None
    text: Annotated[str, Field(max_length=1000)] | None = None
    tend: Annotated[str, Field(max_length=1000)] | None = None
    until: dict[str, float | bool] | None = None

    @field_validator("until")
    @classmethod
    def _a_known_end(cls, until: dict[str, float | bool] | None) -> dict[str, float | bool] | None:
        if until is not None and not set(until) <= set(ENDS):
            raise wrong("until", f"a step goes on until {' or '.join(ENDS)}; one of them would do")
        return until

    @field_validator("max_h")
    @classmethod
    def _after_min(cls, max_h: float | None, info: ValidationInfo) -> float | None:
        least = info.data.get("min_h", 0.0)
        if max_h is not None and max_h < least:
            raise wrong("window", f"at most {max_h:g} h contradicts at least {least:g} h")
        return max_h


class DishRequest(Document):
    """One dish: its own hour where it has one, how early it may be done [min], its steps."""

    id: Name
    name: Annotated[str, Field(max_length=200)] | None = None
    early_max_min: Annotated[float, Field(ge=0, le=24 * 60)] = 0.0
    serve_at: str | None = None
    steps: Annotated[tuple[StepRequest, ...], Field(strict=False, min_length=1, max_length=40)]

    @field_validator("steps")
    @classmethod
    def _told_apart(cls, steps: tuple[StepRequest, ...]) -> tuple[StepRequest, ...]:
        if len({step.id for step in steps}) < len(steps):
            raise wrong("twice", "two steps have the same id; each needs its own")
        return steps


class PlanRequest(Document):
    """A feast: the present moment, its hour, the house and its dishes."""

    format: Literal["pantry-clock/1"] = "pantry-clock/1"
    now: str
    tz: str
    serve_at: str
    day: Day = Day()
    away: Annotated[tuple[Away, ...], Field(strict=False, max_length=200)] = ()
    cooks: Annotated[int, Field(ge=1, le=20)] = 1
    places: dict[str, Annotated[float, Field(ge=0, le=10_000)]] = {}
    dishes: Annotated[
        tuple[DishRequest, ...], Field(strict=False, min_length=1, max_length=MOST_DISHES)
    ]

    @field_validator("dishes")
    @classmethod
    def _told_apart(cls, dishes: tuple[DishRequest, ...]) -> tuple[DishRequest, ...]:
        if len({dish.id for dish in dishes}) < len(dishes):
            raise wrong("twice", "two dishes have the same id; each needs its own")
        return dishes
