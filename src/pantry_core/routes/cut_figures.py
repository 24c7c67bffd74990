"""Water, bone and loss of each cut, from the USDA National Nutrient Database, release 28.

The figures are those of `foods/table.tsv`, which a test holds them against; they stand here too so
that no command has to read the table. What is lost in cooking is derived from the raw and the
cooked food: what is neither water nor fat stays.
"""

from dataclasses import dataclass
from typing import Final

from pantry_core.rules.ingredients import SR_28
from pantry_core.rules.rule import Mark, Rule

LOSS_BAND = 0.025
"""A loss in cooking is known to so much, up and down [g/g] (our own choice)."""


@dataclass(frozen=True, slots=True)
class CutFigures:
    """A raw food by its number, its water and bone [g/g]; the cooked one, and what is lost [g/g].

    `bone` is None where the cut has none, or where the food's refuse is more than bone.
    """

    raw: str
    water: float
    bone: float | None = None
    cooked: str = ""
    loss: float | None = None


CUT_FIGURES: Final[dict[str, CutFigures]] = {
    "gammon-boned": CutFigures("10008", 0.6247, None, "10009", 0.318),
    "gammon-flat": CutFigures("10008", 0.6247, None, "10009", 0.318),
    "gammon-bone": CutFigures("10008", 0.6247, 0.17, "10009", 0.318),
    "pork-hock": CutFigures("10102", 0.6499, 0.29),
    "pork-loin": CutFigures("10224", 0.7014, None, "10065", 0.215),
    "pork-shoulder": CutFigures("10070", 0.6402, None, "10071", 0.244),
    "pork-chop": CutFigures("10036", 0.697, 0.25, "10037", 0.252),
    "pork-ribs": CutFigures("10088", 0.5975, 0.3, "10940", 0.199),
    "belly-skinless": CutFigures("10005", 0.3674),
    "belly-skin": CutFigures("10005", 0.3674),
    "brisket": CutFigures("13803", 0.6108),
    "chuck": CutFigures("13809", 0.6233, None, "13810", 0.351),
    "silverside": CutFigures("13868", 0.6688, None, "13869", 0.349),
    "beef-rib": CutFigures("13824", 0.5524, 0.16, "13826", 0.215),
    "beef-steak": CutFigures("13909", 0.6343, None, "13910", 0.212),
    "short-rib": CutFigures("13147", 0.4829, 0.27, "13148", 0.306),
    "tongue": CutFigures("13339", 0.6453),
    "lamb-leg": CutFigures("17230", 0.6638, None, "17231", 0.278),
    "lamb-leg-bone": CutFigures("17230", 0.6638, 0.22, "17231", 0.278),
    "lamb-shoulder": CutFigures("17242", 0.6336, 0.22, "17245", 0.261),
    "lamb-chump": CutFigures("17234", 0.6132, None, "17235", 0.298),
    "lamb-rack": CutFigures("17239", 0.5368, 0.29, "17241", 0.318),
    "lamb-chop": CutFigures("17236", 0.5955, 0.22, "17237", 0.321),
    "lamb-shank": CutFigures("17228", 0.6701, None, "17229", 0.341),
    "young-goat": CutFigures("17168", 0.7584, None, "17169", 0.24),
    "venison": CutFigures("17164", 0.7357, None, "17165", 0.24),
    "game-shoulder": CutFigures("17164", 0.7357, None, "17346", 0.338),
    "game-loin": CutFigures("17164", 0.7357, None, "17345", 0.214),
    "rabbit": CutFigures("17177", 0.7282, None, "17178", 0.31),
    "chicken": CutFigures("05006", 0.6599, 0.32, "05009", 0.297),
    "chicken-breast": CutFigures("05062", 0.7476, None, "05064", 0.23),
    "chicken-thigh": CutFigures("05091", 0.6768, 0.21, "05094", 0.32),
    "chicken-drumstick": CutFigures("05066", 0.7246, 0.33, "05069", 0.282),
    "chicken-wing": CutFigures("05100", 0.6621, 0.46, "05103", 0.301),
    "duck": CutFigures("05139", 0.485, 0.28, "05140", 0.386),
    "duck-breast": CutFigures("05139", 0.485),
    "duck-leg": CutFigures("05139", 0.485),
    "turkey": CutFigures("05165", 0.704, 0.21, "05166", 0.245),
    "turkey-crown": CutFigures("05191", 0.7005, 0.1, "05192", 0.219),
    "turkey-boned": CutFigures("05165", 0.704, None, "05166", 0.245),
    "turkey-leg": CutFigures("05193", 0.7269, 0.17, "05194", 0.29),
    "goose": CutFigures("05146", 0.4966, 0.19, "05147", 0.36),
    "goose-breast": CutFigures("05146", 0.4966),
    "goose-leg": CutFigures("05146", 0.4966),
    "quail": CutFigures("05157", 0.6965, 0.1),
    "pheasant": CutFigures("05153", 0.6777, 0.14),
    "salmon-side": CutFigures("15236", 0.6489),
    "salmon-piece": CutFigures("15236", 0.6489),
    "trout": CutFigures("15240", 0.7273, None, "15241", 0.135),
    "trout-fillet": CutFigures("15240", 0.7273, None, "15241", 0.135),
    "white-fillet": CutFigures("15015", 0.8122, None, "15016", 0.22),
    "white-fish": CutFigures("15015", 0.8122, None, "15016", 0.22),
    "mackerel": CutFigures("15046", 0.6355, None, "15047", 0.22),
    "cucumber": CutFigures("11205", 0.9523),
    "onion": CutFigures("11282", 0.8911),
    "radish": CutFigures("11429", 0.9527),
    "cabbage": CutFigures("11109", 0.9218),
    "roots": CutFigures("11124", 0.8829),
    "char-side": CutFigures("15114", 0.7142, None, "15219", 0.22),
}  # fmt: skip


def _looked_up(what: str, cut_id: str, value: float) -> Rule:
    source = f"{SR_28}, no. {CUT_FIGURES[cut_id].raw}"
    return Rule(f"{what}-{cut_id}", value, "g/g", source, Mark.SOURCE)


def _derived(cut_id: str, value: float) -> Rule:
    figures = CUT_FIGURES[cut_id]
    source = f"what is neither water nor fat in no. {figures.raw} and {figures.cooked} of {SR_28}"
    return Rule(f"loss-of-{cut_id}", value, "g/g", source, Mark.DERIVED)


WATER: Final = {cut: _looked_up("water-in", cut, each.water) for cut, each in CUT_FIGURES.items()}
"""Water of raw cuts, where a food of the table is like them [g/g]."""
BONE: Final = {
    cut: _looked_up("bone-in", cut, each.bone)
    for cut, each in CUT_FIGURES.items()
    if each.bone is not None
}
"""Bone, and what else of a raw cut nobody eats, by the table's refuse [g/g]."""
LOSS: Final = {
    cut: _derived(cut, each.loss) for cut, each in CUT_FIGURES.items() if each.loss is not None
}
"""What cuts lose in cooking [g/g]."""
