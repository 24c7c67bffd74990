"""How long the same piece would take by methods that a sheet does not weigh out yet.

The waits have no scale: they are worked out once for a piece of 50 mm and grow with the square of
the thickness, so that a new weight costs nothing.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache

from pantry_core.meat import Meat
from pantry_core.mixes.request import WeighRequest
from pantry_core.rules.constants import SATURATION
from pantry_core.salt.advice import Lift, Pickle, lift_then_rest, needle_wait_h
from pantry_core.salt.properties import LEAST_C, MOST_C

REFERENCE_G, REFERENCE_MM = 1000.0, 50.0
STRONG_BRINE_SHARE = 0.12
"""A strong brine to compare with, as heavy in water as the meat [g/g] (common practice)."""
HEAP_SHARE = 0.4
"""Salt of a heaped cure, more than the juice can dissolve [g per g of meat] (common practice)."""
NEEDLE_SHARE = 0.10
"""Pickle by needle, of the usual 8 to 15 % [g per g of meat] (common practice)."""
NOT_INTACT = "not intact any more: 68 °C inside"


@dataclass(frozen=True, slots=True)
class OtherMethod:
    """A method, how long until the piece is ready by it [d], and what it gives up.

    `lift_h` is when it must come out, to rest until it is ready, where it must [h].
    """

    name: str
    days: float
    gives_up: str
    lift_h: float | None = None


def other_methods(request: WeighRequest) -> tuple[OtherMethod, ...]:
    """The same piece to the same target by strong brine, heaped cure, and needle.

    Parameters: request; of its water and method nothing is used, for these have their own.
    Returns: methods that reach the target, each with its wait [d]; none where no salt is aimed at
    or the model does not reach (below 0 °C, above 15 °C).
    Raises: nothing for a request that could be made.
    Source: rule by common practice on the model of `salt.travel`.
    """
    if request.target_salt_pct == 0 or not LEAST_C <= request.temperature_c <= MOST_C:
        return ()
    meat = request.meat
    reference = Meat(
        kind=meat.kind,
        mass_g=REFERENCE_G,
        thickness_mm=REFERENCE_MM,
        shape=meat.shape,
        closed_faces=meat.closed_faces,
        water_share=meat.water_g_g,
    )
    scale = (meat.thickness_mm / REFERENCE_MM) ** 2
    return tuple(_told(reference, request.target_salt_pct, request.temperature_c, scale))


def _told(
    reference: Meat, target_pct: float, temperature_c: float, scale: float
) -> Iterator[OtherMethod]:
    strong_g = REFERENCE_G * STRONG_BRINE_SHARE / (1.0 - STRONG_BRINE_SHARE)
    for name, water_g, salt_g in (
        ("Strong brine of 12 %", REFERENCE_G, strong_g),
        ("Heaped cure, washed off", None, HEAP_SHARE * REFERENCE_G),
    ):
        lift = _lift(reference, water_g, salt_g, target_pct, temperature_c)
        if lift is not None:
            yield OtherMethod(
                name, lift.ready_h * scale / 24.0, "it must come out on time", lift.lift_h * scale
            )
    for cover, name in ((True, "Needle, then even brine"), (False, "Needle alone")):
        hours = _needle(reference, target_pct, temperature_c, cover=cover)
        if hours is not None:
            yield OtherMethod(name, hours * scale / 24.0, NOT_INTACT)


@lru_cache(maxsize=512)
def _lift(
    meat: Meat, water_g: float | None, salt_g: float, target_pct: float, temperature_c: float
) -> Lift | None:
    return lift_then_rest(meat, water_g, salt_g, target_pct, temperature_c)


@lru_cache(maxsize=512)
def _needle(meat: Meat, target_pct: float, temperature_c: float, *, cover: bool) -> float | None:
    """With a cover as much water as meat; alone, all of the salt in a tenth of the weight."""
    if cover:
        pickle = Pickle(REFERENCE_G, target_pct / 100.0 * 2.0 * REFERENCE_G)
    else:
        salt_g = target_pct / 100.0 * REFERENCE_G * (1.0 + NEEDLE_SHARE)
        pickle = Pickle(NEEDLE_SHARE * REFERENCE_G - salt_g, salt_g)
    if pickle.water_g <= 0 or pickle.salt_share > SATURATION.value:
        return None
    return needle_wait_h(meat, pickle, NEEDLE_SHARE, cover=cover, temperature_c=temperature_c)
