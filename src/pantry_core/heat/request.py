"""What is to happen to a piece at the heat: the stages and readings of the `heat` document."""

from typing import Annotated

from pydantic import Field, model_validator

from pantry_core import quantities
from pantry_core.document import Document, wrong
from pantry_core.heat.media import MEDIA, MediumName
from pantry_core.heat.stages import MOST_STAGE_H, Stage
from pantry_core.text import say

MOST_HEAT_STAGES, MOST_READINGS = 20, 2000
Celsius = Annotated[float, Field(ge=-30, le=600)]


class HeatStage(Document):
    """A stage: its medium and temperature [°C], for so long [h] or until an inside temperature."""

    medium: MediumName
    temperature_c: Celsius
    humidity_pct: Annotated[float, Field(ge=0, le=100)] | None = None
    covered: bool = False
    hours: Annotated[float, Field(gt=0, le=MOST_STAGE_H)] | None = None
    until_c: Annotated[float, Field(ge=-2, le=105)] | None = None

    @model_validator(mode="after")
    def _can_be(self) -> "HeatStage":
        medium = MEDIA[self.medium]
        if not medium.least_c <= self.temperature_c <= medium.most_c:
            what = say(
                "{words} is not at {temperature_c}; use {between}",
                words=medium.words,
                temperature_c=quantities.Celsius(self.temperature_c),
                between=quantities.Between(
                    quantities.Celsius(medium.least_c), quantities.Celsius(medium.most_c)
                ),
            )
            raise wrong("medium", what)
        if (self.hours is None) == (self.until_c is None):
            raise wrong("end", "a stage lasts so many hours, or until_c; give the one or the other")
        return self

    def as_stage(self, film: float | None) -> Stage:
        """The stage as the model takes it; film [W/m²K] as given, None by its medium."""
        return Stage(
            self.medium, self.temperature_c, self.hours, self.until_c, self.humidity_pct,
            self.covered, film,
        )  # fmt: skip


class HeatReading(Document):
    """What the probe read in the thickest part [°C], so long after the beginning [h]."""

    at_h: Annotated[float, Field(ge=0, le=24.0 * 7)]
    inside_c: Annotated[float, Field(ge=-20, le=300)]
