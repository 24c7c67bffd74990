"""The table of foods, and the names that people give them.

The figures are those of the USDA National Nutrient Database, release 28, which is in the public
domain; `docs/make_foods.py` takes them over. A piece that the database does not weigh has its
weight from elsewhere, with its own mark.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache
from importlib.resources import files
from typing import Final, Literal

from pantry_core.rules.ingredients import SR_28
from pantry_core.rules.rule import Mark, Source
from pantry_core.text import say

DATABASE: Final = SR_28
SECOND: Final = "Indian Food Composition Tables 2017"
"""A second national table, from a package of npm: its water, where it is the same food."""
FOUNDATION: Final = "USDA Foundation Foods"
SALT_G_PER_SODIUM_MG: Final = 0.002542
"""Salt for each milligram of sodium, by the ratio of their masses [g/mg]."""
US_CUP_ML: Final = 236.5882365
US_TABLESPOON_ML: Final = 14.78676478125
TABLE_FILES: Final = files(__package__)
LANGUAGES: Final = ("en", "de", "fr", "es", "it")

_PIECE_MARKS: Final[dict[str, Source]] = {
    "P": Source("", Mark.PRACTICE),
    "D": Source(say("half a cup"), Mark.DERIVED),
    "F": Source(FOUNDATION, Mark.SOURCE),
    "S": Source(DATABASE, Mark.SOURCE),
}


@dataclass(frozen=True, slots=True)
class Food:
    """A food of the table by its number; shares [g/g], masses of a US cup and of one piece [g].

    `piece_source` says where the mass of a piece is from, `also` what a second table has of its
    water [%]; `bunch_g` is the mass of a bunch; `softens`: raw, its enzymes spoil meat so fast;
    `herb`: raw in oil it needs the fridge.
    """

    key: str
    number: str
    name: str
    water: float
    salt: float
    sugar: float
    fat: float
    refuse: float
    g_per_ml: float | None
    piece_g: float | None
    piece_source: Source | None
    also: str = ""
    bunch_g: float | None = None
    softens: Literal["", "fast", "slow"] = ""
    herb: Literal["", "garlic", "herbs"] = ""

    @property
    def source(self) -> Source:
        """Where its figures are from, its water perhaps from two tables."""
        second = f"; water also {SECOND}, {self.also}" if self.also else ""
        return Source(f"{DATABASE}, no. {self.number}{second}", Mark.SOURCE)


@dataclass(frozen=True, slots=True)
class Row:
    """A row of the database as it was taken over: shares [%], sodium [mg/100 g], masses [g]."""

    number: str
    name: str
    water_pct: float
    sodium_mg: float
    sugar_pct: float
    fat_pct: float
    refuse_pct: float
    cup_g: float | None
    spoon_g: float | None
    piece_g: float | None
    piece: str


@dataclass(frozen=True, slots=True)
class Names:
    """What people call a food: names by language, and what the table does not say of it."""

    key: str
    number: str
    names: tuple[tuple[str, ...], ...]
    more: dict[str, str]


@lru_cache
def rows() -> dict[str, Row]:
    """The rows of the database that are kept, by number."""
    return {row.number: row for row in map(_row, _lines("table.tsv"))}


@lru_cache
def named() -> dict[str, Names]:
    """The names of the foods that are usual, by key."""
    names = (
        Names(
            line["key"],
            line["number"],
            tuple(tuple(filter(None, line[language].split(";"))) for language in LANGUAGES),
            dict(part.split("=") for part in line["more"].split(";") if part),
        )
        for line in _lines("names.tsv")
    )
    return {each.key: each for each in names}


@lru_cache(maxsize=512)
def food(key: str) -> Food:
    """A food by its key: that of a usual one, or its number.

    Parameters: key.
    Returns: the food, in shares [g/g] and masses [g].
    Raises: KeyError for one that the table does not have.
    Source: USDA National Nutrient Database, release 28.

    >>> food("miso").number, round(food("miso").salt, 3)
    ('16112', 0.095)
    """
    names = named().get(key)
    row = rows()[names.number if names else key]
    more = names.more if names else {}
    piece_g, piece_source = _piece(row, more.get("piece"))
    bunch = more.get("bunch")
    return Food(
        key,
        row.number,
        names.names[0][0] if names else row.name,
        row.water_pct / 100.0,
        row.sodium_mg * SALT_G_PER_SODIUM_MG / 100.0,
        row.sugar_pct / 100.0,
        row.fat_pct / 100.0,
        row.refuse_pct / 100.0,
        _g_per_ml(row),
        piece_g,
        piece_source,
        more["ifct"].replace(":", ", ") + " %" if "ifct" in more else "",
        float(bunch[:-1]) if bunch else None,
        "slow" if more.get("softens") == "slow" else "",
        "herbs" if bunch else "",
    )


def is_food(key: str) -> bool:
    """Whether the table has a food by this key."""
    return key in named() or key in rows()


def _piece(row: Row, given: str | None) -> tuple[float | None, Source | None]:
    if given:
        return float(given[:-1]), _PIECE_MARKS[given[-1]]
    if row.piece_g is None:
        return None, None
    return row.piece_g, _PIECE_MARKS["S"]


def _g_per_ml(row: Row) -> float | None:
    if row.cup_g is not None:
        return row.cup_g / US_CUP_ML
    return None if row.spoon_g is None else row.spoon_g / US_TABLESPOON_ML


def _row(line: dict[str, str]) -> Row:
    def number(name: str) -> float | None:
        return float(line[name]) if line[name] else None

    return Row(
        line["number"],
        line["name"],
        float(line["water"]),
        float(line["sodium"]),
        float(line["sugar"]),
        float(line["fat"]),
        float(line["refuse"]),
        number("cup"),
        number("spoon"),
        number("piece"),
        line["of"],
    )


def _lines(name: str) -> Iterator[dict[str, str]]:
    text = TABLE_FILES.joinpath(name).read_text(encoding="utf-8")
    head, *lines = text.splitlines()
    columns = head.split("\t")
    for line in lines:
        cells = line.split("\t")
        yield dict(zip(columns, [*cells, *[""] * (len(columns) - len(cells))], strict=True))
