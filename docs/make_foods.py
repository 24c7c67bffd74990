"""Write the core's table of foods from the USDA National Nutrient Database, release 28.

The database is in the public domain and lies in the package of `requirements-dev.in` that holds
`data/food.db`; only its facts are taken. `docs/foods.txt` lists the numbers of the foods: what
cooks use, generic, without brands.

    python docs/make_foods.py
"""

import csv
import re
import sqlite3
import sys
from importlib.util import find_spec
from pathlib import Path

DOCS = Path(__file__).parent
TABLE = DOCS.parent / "src" / "pantry_core" / "foods" / "table.tsv"
PACKAGE = "pot_of_mannah"
COLUMNS = ("number", "name", "water", "sodium", "sugar", "fat", "refuse", "cup", "spoon", "piece",
           "of")  # fmt: skip
COLUMNS_READ = (
    "Nutrient_Data_Bank_Number", "Description", "Data_Water", "Data_Major_Minerals_Sodium",
    "Data_Sugar_Total", "Data_Fat_Total_Lipid", "Data_Refuse_Percentage",
    "Data_Household_Weights_1st_Household_Weight",
    "Data_Household_Weights_1st_Household_Weight_Description",
    "Data_Household_Weights_2nd_Household_Weight",
    "Data_Household_Weights_2nd_Household_Weight_Description",
)  # fmt: skip
SPELT = {
    "ADDED": "added", "ALL GRDS": "all grades", "APPL": "apple", "BEV": "beverage", "BF": "beef",
    "BKD": "baked", "BLD": "boiled", "BNE-IN": "bone in", "BNLES": "boneless", "BNLESS": "boneless",
    "BNS": "beans", "BONE-IN": "bone in", "BRKFST": "breakfast", "BRLD": "broiled",
    "BRSD": "braised", "BRST": "breast", "BTLD": "bottled", "BTTM": "bottom",
    "BTTRMLK": "buttermilk", "CA": "calcium", "CHIC": "chicken", "CHICK": "chicken",
    "CHOIC": "choice", "CHOC": "chocolate", "CHOPD": "chopped", "CHS": "cheese", "CKD": "cooked",
    "CND": "canned", "CNTR": "center", "COCNT": "coconut", "COMM": "commercial",
    "COMMLY": "commercially", "COMP": "composite", "COND": "condensed", "CRL": "cereal",
    "CRM": "cream", "CRMD": "creamed", "CTTNSD": "cottonseed", "DECORT": "decorticated",
    "DEHYD": "dehydrated", "DK": "dark", "DOM": "domestic", "DRK": "drink", "DRND": "drained",
    "DRSNG": "dressing", "DRUMSTK": "drumstick", "DSSRT": "dessert", "ENR": "enriched",
    "EVAP": "evaporated", "EX": "extra", "FD": "food", "FLAV": "flavored", "FLR": "flour",
    "FRSH": "fresh", "FRZ": "frozen", "GRDS": "grades", "GRN": "green", "GRNS": "greens",
    "H2O": "water", "HTD": "heated", "HVY": "heavy", "HYDR": "hydrogenated",
    "IMITN": "imitation", "IMMAT": "immature", "INCL": "including", "ITAL": "Italian",
    "JUC": "juice", "KRNLS": "kernels", "LIQ": "liquid", "LN": "lean", "LO": "low",
    "LOFAT": "low fat", "LOWFAT": "low fat", "LRG": "large", "LT": "light", "MSHD": "mashed",
    "MXD": "mixed", "NA": "sodium", "NAT": "natural", "PARBLD": "parboiled",
    "PAST": "pasteurized", "PDR": "powder", "PK": "pack", "PLN": "plain", "PNUT": "peanut",
    "PNUTS": "peanuts", "PREP": "prepared", "PROC": "process", "PROD": "product",
    "PROT": "protein", "RED": "red", "REG": "regular", "RND": "round", "RST": "roast",
    "RSTD": "roasted", "RTB": "ready to bake", "RTS": "ready to serve", "SAU": "sauce",
    "SD": "seed", "SEL": "select", "SHK": "shank", "SHLDR": "shoulder", "SHRT": "short",
    "SIMMRD": "simmered", "SIRL": "sirloin", "SKN": "skin", "SLCE": "slice", "SML": "small",
    "SMMR": "summer", "SOL": "solids", "SOYBN": "soybean", "SP": "species", "SPRD": "spread",
    "STK": "stick", "STKS": "sticks", "STMD": "steamed", "STWD": "stewed", "SWT": "sweet",
    "SWTND": "sweetened", "TSTD": "toasted", "UNCKD": "uncooked", "UNCRMD": "uncreamed",
    "UNENR": "unenriched", "UNHTD": "unheated", "UNPREP": "unprepared", "UNSPEC": "unspecified",
    "UNSWTND": "unsweetened", "VAR": "variety", "VEG": "vegetable", "VIT": "vitamin",
    "W/": "with", "W": "with", "WH": "white", "WHL": "whole", "WNTR": "winter", "WO/": "without",
    "WO": "without", "YEL": "yellow", "YNG": "young",
}  # fmt: skip
"""The database's abbreviations, in full."""
JOINED = {"&": " and ", ",": ", "}
_TOKEN = re.compile(r"W/|WO/|[^\s,/&()]+|[,/&()]|\s+")
_NO_PIECE = re.compile(
    r"^(?:\d*\.?\d+ )?(?:oz|lb|package|can|container|serving|NLEA|fl oz|cubic|unit|dash|jar)"
)
_CUP = re.compile(r"^(\.?\d*\.?\d+) cups?\b")
_SPOON = re.compile(r"^(\.?\d*\.?\d+) (tbsp|tablespoons?|tsp|teaspoons?)\b")
_PIECE = re.compile(r"^([1-9]\d*(?:\.\d+)?) (.+)$")


def spelt(description: str) -> str:
    """A description with its abbreviations in full."""
    tidy = re.sub(r"\s{2,}", ",", description.strip())
    words = []
    for part in _TOKEN.findall(tidy):
        if part in JOINED:
            words.append(JOINED[part])
        else:
            whole = SPELT.get(part, part.lower())
            words.append(f"{whole} " if part in ("W/", "WO/") else whole)
    text = " ".join("".join(words).replace(" ,", ",").split())
    text = re.sub(r"(?<=[a-z])/(?=[a-z])", " or ", text)
    return text[:1].upper() + text[1:]


def household(weights: list[tuple[str, str]]) -> tuple[str, str, str, str]:
    """Grams of a US cup, a tablespoon and one piece, and what the piece is."""
    cup = spoon = piece = of = ""
    for grams, described in weights:
        if not grams or float(grams) <= 0:
            continue
        if found := _CUP.match(described):
            cup = cup or _plain(float(grams) / float(found[1]))
        elif found := _SPOON.match(described):
            part = 3.0 if found[2].startswith(("tsp", "tea")) else 1.0
            spoon = spoon or _plain(part * float(grams) / float(found[1]))
        elif not piece and not _NO_PIECE.match(described) and (found := _PIECE.match(described)):
            piece = _plain(float(grams) / float(found[1]))
            of = re.split(r",|\(", found[2])[0].strip()[:24]
    return cup, spoon, piece, of


def _plain(value: float) -> str:
    return f"{value:.4g}"


def rows(database: Path, numbers: list[str]) -> list[tuple[str, ...]]:
    """The rows of the table, by number."""
    wanted = set(numbers)
    found = {}
    with sqlite3.connect(f"file:{database}?mode=ro", uri=True) as connection:
        for number, name, water, sodium, sugar, fat, refuse, *weights in connection.execute(
            f"SELECT {', '.join(COLUMNS_READ)} FROM food_data"  # noqa: S608 - names of columns
        ):
            if number.zfill(5) in wanted:
                measures = household([tuple(weights[:2]), tuple(weights[2:])])
                shares = tuple(_plain(float(each or 0)) for each in (water, sodium, sugar, fat))
                found[number.zfill(5)] = (
                    number.zfill(5), spelt(name), *shares, _plain(float(refuse or 0)), *measures,
                )  # fmt: skip
    missing = wanted - found.keys()
    if missing:
        sys.exit(f"not in the database: {', '.join(sorted(missing))}")
    return [found[number] for number in sorted(found)]


def database() -> Path | None:
    """Where the database lies, None where its package is not installed."""
    package = find_spec(PACKAGE)
    if package is None or package.origin is None:
        return None
    return Path(package.origin).parent / "data" / "food.db"


def page() -> str:
    """The table as it is written."""
    where = database()
    if where is None:
        sys.exit(f"install {PACKAGE} first: bin/set-up dev")
    lines = rows(where, (DOCS / "foods.txt").read_text().split())
    return "\n".join("\t".join(line).rstrip("\t") for line in (COLUMNS, *lines)) + "\n"


if __name__ == "__main__":
    TABLE.write_text(page())
    with TABLE.open() as file:
        print(sum(1 for _ in csv.reader(file, delimiter="\t")) - 1, "foods")
