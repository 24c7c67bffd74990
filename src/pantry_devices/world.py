"""A fire, a piece of meat and a fridge, by finite differences, with all that goes wrong there.

The numbers are our own choice, spread as cooks find them; the steps are explicit and small.
"""

import math
import random
from dataclasses import dataclass, field

NODES = 16
STEP_S = 2.0
AIR_C = 12.0
LATENT_J_KG = 2.4e6
HEAT_J_M3K = 3.6e6
STEAM_KG_J_PA = 6.2e-9
"""Mass of steam that leaves by the film of heat [kg/J per Pa], after Lewis (from memory)."""


def wet_pressure_pa(celsius: float) -> float:
    """The pressure of steam over water [Pa]: the equation of Magnus (from memory)."""
    return 610.94 * math.exp(17.625 * celsius / (celsius + 243.04))


@dataclass
class Fire:
    """A fire that is wanted at a temperature [°C]: it wanders, wind takes it, fuel runs out."""

    wanted_c: float
    rng: random.Random
    wind: float = 0.0
    hours_of_fuel: float = 1.5
    celsius: float = AIR_C
    fuel_h: float = 1.5
    gust_c: float = 0.0
    wander_c: float = 0.0

    def step(self, seconds: float) -> None:
        """Go on for so long."""
        hours = seconds / 3600.0
        self.fuel_h = max(self.fuel_h - hours, 0.0)
        self.wander_c += -self.wander_c * hours * 4.0 + self.rng.gauss(0.0, 14.0) * math.sqrt(hours)
        if self.wind and self.rng.random() < 6.0 * hours * self.wind:
            self.gust_c = self.rng.uniform(-30.0, -10.0) * self.wind
        self.gust_c *= math.exp(-seconds / 420.0)
        strength = min(1.0, self.fuel_h / (0.25 * self.hours_of_fuel))
        aim = AIR_C + (self.wanted_c - AIR_C) * (0.45 + 0.55 * strength)
        target = aim + self.wander_c + self.gust_c
        self.celsius += (target - self.celsius) * (1.0 - math.exp(-seconds / 300.0))

    def top_up(self) -> None:
        """Put fuel on."""
        self.fuel_h = self.hours_of_fuel


@dataclass
class Meat:
    """A slab, a cylinder or a ball, heated from all around, that dries at its surface."""

    thickness_m: float
    shape: int
    start_c: float
    diffusivity_m2_s: float
    film_w_m2k: float
    wetness: float
    layers: list[float] = field(default_factory=list)
    dried_kg_m2: float = 0.0

    def __post_init__(self) -> None:
        self.layers = self.layers or [self.start_c] * NODES

    @property
    def heart_c(self) -> float:
        """The thickest part [°C]."""
        return self.layers[0]

    def step(self, air_c: float, seconds: float, humid_pa: float) -> None:
        """Go on for so long in air of a temperature and a pressure of steam."""
        width = self.thickness_m / 2.0 / NODES
        steps = max(1, math.ceil(seconds * self.diffusivity_m2_s / (0.2 * width**2)))
        for _ in range(steps):
            self._small_step(air_c, seconds / steps, width, humid_pa)

    def _small_step(self, air_c: float, seconds: float, width: float, humid_pa: float) -> None:
        conduct = self.diffusivity_m2_s * HEAT_J_M3K
        edges = [(n * width) ** self.shape for n in range(NODES + 1)]
        sizes = [
            (((n + 1) * width) ** (self.shape + 1) - (n * width) ** (self.shape + 1))
            / (self.shape + 1)
            for n in range(NODES)
        ]
        flows = [
            conduct * (self.layers[n] - self.layers[n - 1]) / width * edges[n]
            for n in range(1, NODES)
        ]
        rim = self.layers[-1]
        drying = math.exp(-self.dried_kg_m2 / self.wetness)
        steam = max(wet_pressure_pa(rim) - humid_pa, 0.0)
        lost = drying * self.film_w_m2k * STEAM_KG_J_PA * steam
        self.dried_kg_m2 += lost * seconds
        into = (self.film_w_m2k * (air_c - rim) - lost * LATENT_J_KG) * edges[NODES]
        for n in range(NODES):
            inner = flows[n - 1] if n else 0.0
            outer = flows[n] if n < NODES - 1 else into
            self.layers[n] += (outer - inner) * seconds / (HEAT_J_M3K * sizes[n])


@dataclass
class Fridge:
    """A fridge whose door is opened, and once left open."""

    rng: random.Random
    celsius: float = 4.0
    open_s: float = 0.0

    def step(self, seconds: float) -> None:
        """Go on for so long."""
        if not self.open_s and self.rng.random() < seconds / 5400.0:
            self.open_s = self.rng.uniform(10.0, 40.0)
        aim, pace = (18.0, 500.0) if self.open_s > 0 else (3.6, 900.0)
        self.open_s = max(self.open_s - seconds, 0.0)
        self.celsius += (aim - self.celsius) * (1.0 - math.exp(-seconds / pace))
        self.celsius += self.rng.gauss(0.0, 0.02)
