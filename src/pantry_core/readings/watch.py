"""What a channel that is watched shows: its rise, and whether it is silent, frozen, in the air."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final, Literal

import numpy as np

from pantry_core.readings.sift import Sample, What
from pantry_core.rules.rule import Mark, Rule
from pantry_core.text import Text, say

Trouble = Literal[
    "silent", "refused", "frozen", "in-the-air", "pulled-out", "fire-low", "fire-high", "oven-low",
    "oven-high", "warm",
]  # fmt: skip

SILENT_S: Final = Rule("device-silent", 120.0, "s", "a wire, a battery", Mark.PRACTICE)
FROZEN_S: Final = Rule("reading-frozen", 900.0, "s", "no fire is so steady", Mark.PRACTICE)
FROZEN_N: Final = 20
"""So many readings without a change before they are called frozen (our own choice)."""
NEAR_FIRE_C: Final = Rule("probe-near-fire", 6.0, "°C", "a probe at the grate", Mark.PRACTICE)
FELL_C: Final = Rule("probe-pulled-out", 8.0, "°C", "no centre cools so at the heat", Mark.PRACTICE)
SLOPE_S: Final = 1800.0
"""A rise is told over so long [s]."""
LASTS_S: Final = 300.0
"""What a fire or a fridge does for a shorter time is a lid or a door [s] (our own choice)."""
SAID: Final[dict[Trouble, Text]] = {
    "silent": say("Nothing has come from it for two minutes: look at its wire and its battery."),
    "refused": say(
        "What it sends cannot be of this piece: is it in the meat, and does it send °C?"
    ),
    "frozen": say("It has not changed for a quarter of an hour: is it frozen?"),
    "in-the-air": say("It shows what the fire shows: is it in the meat?"),
    "pulled-out": say("It has fallen: was it pulled out?"),
    "fire-low": say("The fire is low: more fuel, more air."),
    "fire-high": say("The fire is high: less air."),
    "oven-low": say("The oven is colder than it is meant to be: was its door open?"),
    "oven-high": say("The oven is hotter than it is meant to be: turn it down."),
    "warm": say("The fridge is too warm: is its door open?"),
}


@dataclass(frozen=True, slots=True)
class Watched:
    """A channel now [°C], what it rose in the last half hour [°C], and what is wrong with it."""

    read_c: float | None
    rise_c: float | None
    troubles: tuple[Trouble, ...]

    @property
    def said(self) -> tuple[Text, ...]:
        """What is wrong, as sentences."""
        return tuple(SAID[each] for each in self.troubles)


def watched(
    what: What,
    samples: Sequence[Sample],
    now_s: float,
    *,
    fire_c: float | None = None,
    band_c: tuple[float, float] | None = None,
    is_oven: bool = False,
    refused_s: float | None = None,
) -> Watched:
    """What a channel shows now.

    Parameters: what it is in; samples that are believed, in the order of their hours; now_s;
    fire_c, what the fire shows, for a probe that is meant to be in the meat [°C]; band_c, what is
    wanted of a fire or a fridge [°C]; is_oven, whether the fire is an oven;
    refused_s, when a reading was last left out [s].
    Returns: the reading, its rise over half an hour, None where it is not known, and its troubles.
    Raises: nothing.
    Source: our own choice.

    >>> rising = [Sample(60.0 * n, 40.0 + 0.1 * n) for n in range(40)]
    >>> watched("meat", rising, 2350.0).troubles, round(watched("meat", rising, 2350.0).rise_c, 1)
    ((), 3.0)
    >>> watched("meat", rising, 3000.0).troubles
    ('silent',)
    """
    if not samples:
        return Watched(None, None, ())
    last = samples[-1]
    found: list[Trouble] = []
    if now_s - last.at_s > SILENT_S.value:
        is_refused = refused_s is not None and now_s - refused_s <= SILENT_S.value
        found.append("refused" if is_refused else "silent")
    if _is_frozen(samples):
        found.append("frozen")
    if what == "meat":
        if fire_c is not None and fire_c > 60.0 and abs(last.celsius - fire_c) < NEAR_FIRE_C.value:
            found.append("in-the-air")
        elif max(each.celsius for each in samples) - last.celsius > FELL_C.value:
            found.append("pulled-out")
    elif band_c is not None:
        found += _outside(what, samples, band_c, is_oven=is_oven)
    return Watched(last.celsius, _rise(samples), tuple(found))


def mean_c(samples: Sequence[Sample]) -> float | None:
    """The average over time, straight between readings.

    Parameters: samples in the order of their hours.
    Returns: [°C]; None for none.
    Raises: nothing.

    >>> mean_c([Sample(0.0, 100.0), Sample(10.0, 100.0), Sample(20.0, 120.0)])
    105.0
    """
    if len(samples) < 2 or samples[0].at_s == samples[-1].at_s:
        return samples[-1].celsius if samples else None
    at, read = zip(*((each.at_s, each.celsius) for each in samples), strict=True)
    return float(np.trapezoid(read, at)) / (samples[-1].at_s - samples[0].at_s)


def _is_frozen(samples: Sequence[Sample]) -> bool:
    since = samples[-1].at_s - FROZEN_S.value
    late = [each.celsius for each in samples if each.at_s >= since]
    return samples[0].at_s <= since and len(late) >= FROZEN_N and len(set(late)) == 1


def _rise(samples: Sequence[Sample]) -> float | None:
    before = samples[-1].at_s - SLOPE_S
    if samples[0].at_s > before:
        return None
    at, read = zip(*((each.at_s, each.celsius) for each in samples), strict=True)
    return samples[-1].celsius - float(np.interp(before, at, read))


def _outside(
    what: What, samples: Sequence[Sample], band_c: tuple[float, float], *, is_oven: bool
) -> list[Trouble]:
    """Whether it has been outside its band for so long that it is no lid and no door."""
    low, high = band_c
    late = [each for each in samples if each.at_s >= samples[-1].at_s - LASTS_S]
    if late[0].at_s > samples[-1].at_s - 0.8 * LASTS_S:
        return []
    if all(each.celsius < low for each in late):
        return [] if what != "fire" else ["oven-low"] if is_oven else ["fire-low"]
    if all(each.celsius > high for each in late):
        return ["warm"] if what != "fire" else ["oven-high"] if is_oven else ["fire-high"]
    return []
