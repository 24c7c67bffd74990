"""One step of a route."""

from dataclasses import dataclass

from pantry_core.heat.media import MediumName
from pantry_core.text import worded

Until = dict[str, float | bool]
"""Until what a step goes on: an inside temperature, tender, a look, cold."""


@dataclass(frozen=True, slots=True)
class RouteStep:
    """One step: windows [h], hands at its beginning [min], rounds every so many hours.

    `title` names the step, `begin` is what the hands do at its beginning, `tend` what a round is,
    `until` what it goes on until: an inside temperature, tender, a look, cold; `trip` names the
    errand that it is part of. Without a wish any length inside its window is as good. `medium` is
    what it is heated or cooled in, `medium_c` how hot or cold that is [°C], `covered` under a lid;
    `form` is what the piece becomes with it; `with_piece` whether the piece is there, and not only
    its brine.
    """

    id: str
    kind: str
    title: str
    begin: str
    place: str | None
    min_h: float
    prefer_h: float | None
    max_h: float
    hands_min: float = 0.0
    attended: bool = False
    every_h: float | None = None
    tend: str = ""
    until: Until | None = None
    trip: str | None = None
    medium: MediumName | None = None
    medium_c: float | None = None
    covered: bool = False
    form: str | None = None
    with_piece: bool = True

    def __post_init__(self) -> None:
        """Its words may have figures in them."""
        for name in ("begin", "tend"):
            object.__setattr__(self, name, worded(getattr(self, name)))
