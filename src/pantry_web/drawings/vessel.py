"""A vessel cut open: the piece, its plate, the liquid and what is spare, to scale."""

from dataclasses import dataclass
from math import pi, sqrt

from pantry_core.quantities import Centimetres
from pantry_core.rules.constants import MEAT_DENSITY
from pantry_core.text import say
from pantry_core.vessels.fit import COVER_MM, FitAnswer, Vessel

WIDTH, HEIGHT = 340.0, 210.0
LEFT, RIGHT, TOP, BOTTOM = 12.0, 108.0, 12.0, 10.0
PLATE_MM = 8.0


@dataclass(frozen=True, slots=True)
class Mark:
    """A height that is written beside the vessel."""

    y: float
    text: str
    kind: str


@dataclass(frozen=True, slots=True)
class VesselPicture:
    """Paths and boxes in a picture of 340 by 210; `liquid` is empty where there is none."""

    walls: str
    liquid: str
    meat_x: float
    meat_y: float
    meat_width: float
    meat_height: float
    plate_y: float | None
    plate_x: float
    plate_width: float
    marks: tuple[Mark, ...]
    width: float = WIDTH
    height: float = HEIGHT


def vessel_picture(
    vessel: Vessel, answer: FitAnswer, mass_g: float, height_mm: float
) -> VesselPicture | None:
    """Draw a vessel with what is in it; None for a bag, which has no shape of its own.

    Parameters: vessel and its answer; mass_g of the piece [g] and its height as it lies [mm].
    """
    if vessel.depth_mm is None or answer.level_mm is None:
        return None
    depth = vessel.depth_mm
    top = vessel.length_mm or vessel.diameter_mm or vessel.top_mm or depth
    bottom = vessel.length_mm or vessel.diameter_mm or vessel.bottom_mm or depth
    tallest = max(depth, height_mm + COVER_MM.value)
    scale = min((WIDTH - LEFT - RIGHT) / max(top, bottom), (HEIGHT - TOP - BOTTOM) / tallest)
    middle = LEFT + (WIDTH - LEFT - RIGHT) / 2.0
    floor = HEIGHT - BOTTOM

    def y(millimetres: float) -> float:
        return round(floor - scale * millimetres, 1)

    def half(millimetres: float) -> float:
        """Half of the vessel's width at a height."""
        part = min(max(millimetres / depth, 0.0), 1.0)
        return scale * (bottom + (top - bottom) * part) / 2.0

    def side(millimetres: float) -> tuple[float, float]:
        return round(middle - half(millimetres), 1), round(middle + half(millimetres), 1)

    level = min(answer.level_mm, depth)
    (lb, rb), (lt, rt), (ll, rl) = side(0.0), side(depth), side(level)
    walls = f"M{lt} {y(depth)}L{lb} {y(0)}H{rb}L{rt} {y(depth)}"
    liquid = f"M{ll} {y(level)}L{lb} {y(0)}H{rb}L{rl} {y(level)}Z" if level > 0 else ""
    area = mass_g / MEAT_DENSITY.value * 1000.0 / height_mm
    across = min(
        sqrt(area * 1.6) if vessel.shape == "box" else 2.0 * sqrt(area / pi),
        0.94 * 2.0 * half(height_mm / 2.0) / scale,
    )
    wanted = height_mm + COVER_MM.value
    marks = [Mark(y(level), say("level {cm}", cm=Centimetres(level / 10, 1)), "level")]
    if not answer.covered:
        marks.append(
            Mark(y(wanted), say("covered at {cm}", cm=Centimetres(wanted / 10, 1)), "wanted")
        )
    if depth - level > 0.12 * tallest:
        marks.append(Mark(y(depth), say("rim {cm}", cm=Centimetres(depth / 10, 1)), "rim"))
    return VesselPicture(
        walls=walls,
        liquid=liquid,
        meat_x=round(middle - scale * across / 2.0, 1),
        meat_y=y(height_mm),
        meat_width=round(scale * across, 1),
        meat_height=round(scale * height_mm, 1),
        plate_y=y(height_mm + PLATE_MM) if answer.covered else None,
        plate_x=round(middle - scale * across * 0.35, 1),
        plate_width=round(scale * across * 0.7, 1),
        marks=tuple(_apart(marks)),
    )


def _apart(marks: list[Mark]) -> list[Mark]:
    """Write no two heights closer than a line."""
    placed: list[Mark] = []
    for mark in sorted(marks, key=lambda each: each.y):
        lowest = placed[-1].y + 16.0 if placed else 0.0
        placed.append(Mark(max(mark.y, lowest), mark.text, mark.kind))
    return placed
