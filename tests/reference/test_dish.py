"""What a dish holds against a separate reckoning in two dimensions."""

import numpy as np
import pytest

from pantry_core.formats.operations import dish_document
from tests.core.dishes import dish

STEP_M = 0.0005
BAND = {
    "poultry": (1.5e-10, 2.5e-10, 4.5e-10),
    "pork": (1.5e-10, 2.5e-10, 4.0e-10),
    "fish": (1.0e-10, 2.0e-10, 3.5e-10),
}  # m²/s at 4 °C: literature, loosely (from memory)
SATURATED = 0.264 / 0.736


def in_a_bath(kind, thick_mm, wide_mm, hours, bath, at_first):
    """Mean concentration [g/g] of a rectangle in a stirred bath, by finite differences.

    bath: its water in parts of that of the piece; at_first: its concentration [g/g].
    """
    return {d: _spread(d, thick_mm, wide_mm, hours, bath, at_first) for d in BAND[kind]}


def _spread(diffusivity, thick_mm, wide_mm, hours, bath, at_first):
    cells = np.zeros((round(thick_mm / 1000 / STEP_M), round(wide_mm / 1000 / STEP_M)))
    pace = 0.2
    outside = at_first
    for _ in range(round(hours * 3600 * diffusivity / (pace * STEP_M**2))):
        padded = np.pad(cells, 1, constant_values=outside)
        # the rim lies on the outer edge of the outer cells: half a step away
        for rim in (padded[0, :], padded[-1, :], padded[:, 0], padded[:, -1]):
            rim[:] = outside
        flow = (
            (2 - _inner(0, cells)) * (padded[:-2, 1:-1] - cells)
            + (2 - _inner(-1, cells)) * (padded[2:, 1:-1] - cells)
            + (2 - _inner(0, cells.T).T) * (padded[1:-1, :-2] - cells)
            + (2 - _inner(-1, cells.T).T) * (padded[1:-1, 2:] - cells)
        )
        before = cells.mean()
        cells = cells + pace * flow
        outside -= (cells.mean() - before) / bath
    return cells.mean()


def _inner(edge, cells):
    """One for every cell, less those of the first or last row: their rim is twice as near."""
    ones = np.ones_like(cells)
    ones[edge, :] = 0.0
    return ones


@pytest.mark.parametrize(
    ("cut", "kind", "mass_g", "thick_mm", "wide_mm", "hours", "pieces"),
    [
        # the wall of a bird of 1.8 kg, which goes round it: as wide as the bird is about
        ("chicken", "poultry", 1800, 40, 320, 12, {}),
        ("pork-chop", "pork", 1200, 30, 160, 2, {"count": 4}),
    ],
)
def test_a_brine_of_six_per_cent(cut, kind, mass_g, thick_mm, wide_mm, hours, pieces):
    asked = dish(cut, mass_g, "strong-brine", brine_salt_pct=6, days=hours / 24,
                 piece={"thickness_mm": thick_mm, **pieces})  # fmt: skip
    answer = dish_document(asked)
    grams = {line["name"]: line["grams"] for line in answer["sheet"]["lines"]}
    meat_g = mass_g * (1 - answer["asked"]["meat"]["bone_share"])
    bath = grams["water"] / (0.74 * meat_g)
    found = in_a_bath(kind, thick_mm, wide_mm, hours, bath, grams["salt"] / grams["water"])
    slow, usual, fast = (100 * 0.74 * held for held in found.values())
    # the model is a slab without ends; what it leaves out is less than its own doubt
    assert slow < answer["salt"]["mean_pct"] < fast
    assert answer["salt"]["mean_pct"] == pytest.approx(usual, rel=0.25)


def test_a_fillet_of_twenty_millimetres_dry_for_two_days():
    asked = dish("salmon-piece", 900, "dry-cure", piece={"thickness_mm": 20}, days=2,
                 target_salt_pct=1.0)  # fmt: skip
    answer = dish_document(asked)
    assert answer["salt"]["mean_pct"] == pytest.approx(1.0, rel=0.01)  # all of it is in by then
    # salt on a rim at saturation until it is used up, then evening out, in two dimensions
    outer = [_dry(d, 20, 120, 48, 0.01 / 0.65) for d in BAND["fish"]]
    even, fast = outer[1], outer[2]
    assert fast < even < outer[0]
    assert fast * 65 * 0.8 < answer["salt"]["rim_pct"] < outer[0] * 65 * 1.2


def _dry(diffusivity, thick_mm, wide_mm, hours, even):
    """Concentration of the outer 5 mm of the thickness after dry salt is used up [g/g]."""
    cells = np.zeros((round(thick_mm / 1000 / STEP_M), round(wide_mm / 1000 / STEP_M)))
    pace, left = 0.2, even * cells.size
    for _ in range(round(hours * 3600 * diffusivity / (pace * STEP_M**2))):
        inner = np.pad(cells, 1, mode="edge")
        flow = inner[:-2, 1:-1] + inner[2:, 1:-1] + inner[1:-1, :-2] + inner[1:-1, 2:] - 4 * cells
        cells = cells + pace * flow
        if left > 0:
            taken = 0.0
            for row in (0, -1):
                gain = np.minimum(2 * pace * (SATURATED - cells[row, :]), left / cells.shape[1])
                cells[row, :] += gain
                taken += gain.sum()
            left -= taken
    depth = round(0.005 / STEP_M)
    return np.concatenate((cells[:depth, :], cells[-depth:, :])).mean()
