"""What of a pantry bears on a mix: scales, weighed spoons, labels."""

from collections.abc import Mapping
from dataclasses import dataclass, field

from pantry_core.measures.scales import Scale
from pantry_core.rules.ingredients import INGREDIENTS, SALT_PER_SODIUM
from pantry_core.text import say
from pantry_web.kitchens.models import Kitchen

USUAL_SCALE = Scale(say("kitchen scale"), 1.0, 5000.0)
"""The scale of a kitchen that has named none (common practice)."""


@dataclass(frozen=True, slots=True)
class Packet:
    """An ingredient of the cook's own: its name, mass of a millilitre, label [g/ml, %]."""

    name: str
    g_per_ml: float | None = None
    nitrite_pct: float | None = None
    nitrate_pct: float | None = None
    salt_pct: float | None = None


@dataclass(frozen=True, slots=True)
class Larder:
    """Scales, and the cook's own packets by what they stand for."""

    scales: tuple[Scale, ...] = (USUAL_SCALE,)
    packets: Mapping[str, Packet] = field(default_factory=dict)

    def g_per_ml(self, key: str) -> float | None:
        """By the cook's own spoon; never of curing salt [g/ml]."""
        packet = self.packets.get(key)
        return packet.g_per_ml if packet and INGREDIENTS[key].role != "cure" else None

    def named(self, text: str) -> str | None:
        """What the packet stands for whose name is in a text."""
        tidy = text.lower()
        return next((key for key, each in self.packets.items() if each.name.lower() in tidy), None)

    def own_salt(self) -> tuple[str, float] | None:
        """Name and mass of a millilitre of the first salt whose spoon was weighed [g/ml]."""
        for key, packet in self.packets.items():
            if INGREDIENTS[key].role == "salt" and packet.g_per_ml:
                return packet.name, packet.g_per_ml
        return None


def larder_of(kitchen: Kitchen) -> Larder:
    """The larder of a kitchen, in two queries."""
    scales = tuple(
        Scale(each.name, each.division_g, each.capacity_g) for each in kitchen.scales.all()
    )
    packets: dict[str, Packet] = {}
    for each in kitchen.ingredients.all():
        packets.setdefault(
            each.stands_for,
            Packet(
                each.name, each.g_per_ml, each.nitrite_pct, each.nitrate_pct,
                None if each.sodium_mg is None else each.sodium_mg * SALT_PER_SODIUM.value,
            ),
        )  # fmt: skip
    return Larder(scales or (USUAL_SCALE,), packets)
