"""Made-up kitchens with true factors, whose cooks tell what they see, some of them carelessly.

Salt goes through a slab by finite differences, explicit in time, with a bath that is drawn on:
nothing of the model of the core. Words for tastes and the share of a heart that is bland are what
a person would say of the true figures; one in ten is told without looking.
"""

import math
import random
from dataclasses import dataclass

CELLS = 40
D_4_C = 2.5e-10
"""Diffusivity of salt in red meat at 4 °C [m²/s] (literature, from memory)."""
WATER = 0.74
CARELESS = 0.1
WORDS = (("flat", -0.2), ("right", 0.2), ("salty", 0.5), ("too-salty", math.inf))


@dataclass(frozen=True)
class Kitchen:
    """What is true of a kitchen: factors on oven hours, speed of salt, and liking."""

    oven: float
    speed: float
    liking: float


def kitchen(dice):
    return Kitchen(dice.uniform(0.8, 1.3), dice.uniform(0.6, 1.6), dice.uniform(0.7, 1.4))


def cooked(dice, one):
    """Hours foretold and hours that it took, read on a probe or only "by then"."""
    foretold = dice.uniform(0.6, 5.0)
    took = foretold * one.oven * math.exp(dice.gauss(0.0, 0.08))
    is_read = dice.random() < 0.7
    if dice.random() < CARELESS:
        took *= dice.uniform(0.7, 1.6)
    elif not is_read:
        took *= dice.uniform(1.0, 1.3)
    return foretold, took, is_read


def tasted(dice, one):
    """Salt in a dish, what is usual for its case [%], and the word for it."""
    usual = dice.choice((1.0, 1.2, 2.0))
    salt = usual * math.exp(dice.gauss(0.0, 0.25))
    if dice.random() < CARELESS:
        return salt, usual, dice.choice([word for word, _ in WORDS])
    off = math.log(salt / (usual * one.liking)) + dice.gauss(0.0, 0.1)
    return salt, usual, next(word for word, most in WORDS if off < most)


def heart(dice, one):
    """A slab in a strong brine that is lifted and cut: [mm], [h], water and salt [g], bland share.

    The meat weighs 1 kg.
    """
    thick_mm, hours = dice.uniform(30.0, 60.0), dice.uniform(12.0, 96.0)
    water_g, salt_g = 3000.0, dice.uniform(200.0, 400.0)
    share = bland_share(thick_mm, hours, water_g, salt_g, one.speed)
    seen = min(max(share + dice.gauss(0.0, 0.05), 0.0), 1.0)
    if dice.random() < CARELESS:
        seen = dice.random()
    return thick_mm, hours, water_g, salt_g, round(seen, 1)


def bland_share(thick_mm, hours, water_g, salt_g, speed):
    """How far from the middle it is still below half of the mean, as a share of the thickness."""
    cell = thick_mm / 2000.0 / CELLS
    step = 0.4 * cell**2 / (D_4_C * speed)
    inside, bath_g, held_g = [0.0] * CELLS, salt_g, WATER * 1000.0 / CELLS
    left = hours * 3600.0
    while left > 0.0:
        part = D_4_C * speed * min(step, left) / cell**2
        left -= step
        outside = bath_g / water_g
        flows = [part * (inside[i + 1] - inside[i]) for i in range(CELLS - 1)]
        flows.append(2.0 * part * (outside - inside[-1]))
        for i, flow in enumerate(flows):
            inside[i] += flow - (flows[i - 1] if i else 0.0)
        bath_g -= flows[-1] * held_g
    mean = sum(inside) / CELLS
    return sum(each < 0.5 * mean for each in inside) / CELLS


def dice_of(number):
    return random.Random(f"kitchen-{number}")
