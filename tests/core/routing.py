"""Routes and what a mix comes to, for a kilo of any cut by any method."""

from dataclasses import replace

from pantry_core.heat.body import Body
from pantry_core.mixes.request import WeighRequest
from pantry_core.mixes.result import Ready
from pantry_core.mixes.weigh import judged_of
from pantry_core.routes.customs import USUAL
from pantry_core.routes.cuts import CUTS
from pantry_core.routes.heating import Cooking
from pantry_core.routes.heats import HEATS
from pantry_core.routes.lying import through
from pantry_core.routes.steps import route
from pantry_core.routes.ways import WAYS


def judged(cut="gammon-flat", method="even-brine", *, ppm=150.0, salt=2.0, lift_h=None, **meat):
    """What a kilo of a cut comes to, when it must come out given as it is asked for."""
    kind, way = CUTS[cut].kind, WAYS[method]
    piece = {"kind": kind, "mass_g": 1000.0, "thickness_mm": 40.0, "shape": "slab"}
    species = {"species": CUTS[cut].species} if CUTS[cut].species else {}
    request = WeighRequest.model_validate(
        {
            "profile": "us", "meat": piece | species | meat, "method": way.method,
            "cover": way.cover, "heaped": way.heaped, "target_salt_pct": salt,
            "water_g": 1000.0 if way.has_water else None,
            "brine_salt_pct": 10.0 if way.method == "strong-brine" else None,
            "cure": {"name": "cure-1", "ingoing_ppm": ppm} if ppm else None,
        }
    )  # fmt: skip
    found = judged_of(request)
    return found if lift_h is None else replace(found, wait=Ready(9.0, 12.0, 6.0, 15.0, lift_h))


def way(cut="gammon-flat", method="even-brine", *, lift_h=None, ppm=150.0, wait_days=14.0,
        mass_g=2000.0, customs=USUAL, found=None, smoked=False, thick_mm=60.0,
        **changes):  # fmt: skip
    """The route of two kilos of a cut, salted through in so many days."""
    heat = HEATS["smoke" if smoked else CUTS[cut].heat]
    come_to = found or judged(cut, method, ppm=ppm, lift_h=lift_h)
    cooking = Cooking(
        CUTS[cut], "whole", heat, Body("cylinder", thick_mm), mass_g,
        goal_c=come_to.inside.value if come_to.inside else None,
        is_cured=come_to.nitrite.verdict == "ok", vegetables=customs.vegetables == "late",
        is_tempered=customs.tempering == "hour",
    )  # fmt: skip
    return route(
        CUTS[cut], WAYS[method], mass_g=mass_g, customs=customs,
        judged=come_to,
        lying=through(WAYS[method], wait_days, lift_h),
        cooking=cooking, **changes,
    )  # fmt: skip
