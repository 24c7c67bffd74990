"""What happens to a piece from the shop to the table, stay by stay: the base of every judgement."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Literal

from pantry_core.conduction.shells import Vector
from pantry_core.heat.forecast import Reading
from pantry_core.heat.media import MediumName

State = Literal["frozen", "raw", "curing", "hot", "cooked", "cold"]


@dataclass(frozen=True, slots=True)
class Band:
    """The lower and the upper edge of what a model says, equal where it was read [°C]."""

    low: float
    high: float


@dataclass(frozen=True, slots=True)
class Held:
    """What it holds: at its least point, at its edge and on average [% of the meat, mg/kg]."""

    least: float
    edge: float
    mean: float


NOTHING = Held(0.0, 0.0, 0.0)


@dataclass(frozen=True, slots=True)
class Stay:
    """One stay of the piece, of hours from its purchase [h].

    `place` and `around_c` are where it is and how warm that is [°C]; `lies_in` what of the mix lies
    around it, empty for nothing; `inside_c` its slowest and `warmest_c` its warmest point at the
    end of the stay [°C]; `salt` [% of the meat] and `nitrite_ppm` [mg/kg] at its end; `known`
    whether it was read or is meant. `out_h` is how much of it counts as out of the cold [h],
    `until` what it goes on until.
    """

    from_h: float
    to_h: float
    step: str | None
    place: str
    lies_in: str
    around_c: float
    inside_c: Band
    warmest_c: float
    salt: Held
    nitrite_ppm: Held
    state: State
    known: Literal["read", "meant"]
    medium: MediumName | None = None
    out_h: float = 0.0
    is_stuffed: bool = False
    until: Mapping[str, float | bool] | None = None

    @property
    def hours(self) -> float:
        """How long it lasts [h]."""
        return self.to_h - self.from_h

    @property
    def is_raw(self) -> bool:
        """Whether the piece is raw in it and not frozen."""
        return self.state in ("raw", "curing")


@dataclass(frozen=True, slots=True)
class Heated:
    """How hot the slowest point gets in a stay at the heat [°C].

    `is_read`: a probe told it; `is_certain`: the stay goes on until it is so hot, or was read;
    `climbs_c` how much it still climbs while it rests after the last heat [°C].
    """

    step: str
    reaches: Band
    is_read: bool
    is_certain: bool
    climbs_c: float = 0.0

    @property
    def hottest(self) -> Band:
        """How hot it gets by this heat, the rest after it included [°C]."""
        return Band(self.reaches.low + self.climbs_c, self.reaches.high + self.climbs_c)


@dataclass(frozen=True)
class Trace:
    """The slowest point by the model, bent to what was read: hours from purchase [h, °C]."""

    hours: Vector
    slowest_c: Vector


@dataclass(frozen=True)
class Soaked:
    """How salt and nitrite get in: hours from purchase [h], salt [% of the meat], nitrite [mg/kg].

    `salt_pct` and `nitrite_ppm` are averages, `least_pct` the least salty point, `edge_pct` the
    outer 5 mm; `even_pct` and `even_ppm` what all comes to in the end.
    """

    hours: Vector
    salt_pct: Vector
    nitrite_ppm: Vector
    even_pct: float
    least_pct: Vector
    edge_pct: Vector
    even_ppm: float


@dataclass(frozen=True)
class History:
    """All stays in order; how hot it gets; heat and salt by the model; and when the present is [h].

    `now_h` is None where nothing has happened yet. `warm_h` is what mishaps and warm readings add
    to the hours out of the cold [h], `is_hot` whether some of it was in a hot kitchen,
    `warm_after_h` what they add after the heat [h]; `fridge_read_c` is what was read last
    where it lies in the cold [°C]. `went_in_g` is the weight of the
    piece that was put in [g]. `read_at_heat` is what the probe read at the heat, `read_after` what
    it read after it, counted from what happened first [h, °C].
    """

    stays: tuple[Stay, ...]
    heated: tuple[Heated, ...] = ()
    trace: Trace | None = None
    soaked: Soaked | None = None
    now_h: float | None = None
    warm_h: float = 0.0
    is_hot: bool = False
    warm_after_h: float = 0.0
    fridge_read_c: float | None = None
    went_in_g: float | None = None
    read_at_heat: tuple[Reading, ...] = ()
    read_after: tuple[Reading, ...] = ()
    has_left_the_heat: bool = False

    def before_the_heat(self) -> Iterator[Stay]:
        """The stays in which it is raw, before the heat that cooks it."""
        for each in self.stays:
            if each.state in ("hot", "cooked", "cold"):
                return
            yield each

    def after_the_heat(self) -> Iterator[Stay]:
        """The stays from the heat that cooks it on."""
        is_after = False
        for each in self.stays:
            is_after = is_after or each.state in ("hot", "cooked", "cold")
            if is_after:
                yield each

    @property
    def hours(self) -> float:
        """How long it lasts in all [h]."""
        return self.stays[-1].to_h if self.stays else 0.0
