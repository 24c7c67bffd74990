"""Cuts by the words of recipes."""

import re
from typing import Final

CUT_WORDS: Final[tuple[tuple[str, str], ...]] = (
    ("chicken-breast", r"chicken breasts?"), ("chicken-thigh", r"chicken thighs?|\bthighs\b"),
    ("chicken-drumstick", r"drumsticks?"), ("chicken-wing", r"chicken wings?|\bwings\b"),
    ("duck-breast", r"duck breasts?"), ("duck-leg", r"duck legs?"),
    ("goose-breast", r"goose breasts?"), ("goose-leg", r"goose legs?"),
    ("turkey-crown", r"turkey crown"), ("turkey-leg", r"turkey legs?"),
    ("pork-hock", r"hocks?|eisbein|knuckles?"), ("pork-chop", r"pork chops?"),
    ("pork-ribs", r"pork ribs?|spare ribs?"), ("belly-skin", r"bell(?:y|ies)|pork side"),
    ("pork-loin", r"pork loin|loin of pork"), ("lamb-shank", r"shanks?"),
    ("lamb-shoulder", r"(?:lamb|mutton|goat) shoulder|shoulder of (?:lamb|mutton|goat)"),
    ("lamb-leg-bone", r"(?:lamb|mutton|goat) leg|leg of (?:lamb|mutton|goat)"),
    ("lamb-rack", r"rack of lamb|lamb rack"), ("lamb-chop", r"lamb chops?"),
    ("game-shoulder", r"(?:venison|roe|deer|boar) shoulder|shoulder of (?:venison|roe|deer|boar)"),
    ("venison", r"venison|haunch"), ("game-loin", r"saddle of (?:venison|roe|deer)"),
    ("pork-shoulder", r"pork shoulder|pork butt|shoulder of pork|shoulder"),
    ("gammon-flat", r"gammon|leg of pork|pork leg|fresh ham"), ("young-pig", r"suckling pig"),
    ("brisket", r"brisket"), ("chuck", r"chuck"), ("silverside", r"silverside|topside|round"),
    ("short-rib", r"short ribs?"), ("beef-rib", r"rib of beef|prime rib|rib roast"),
    ("beef-cheek", r"cheeks?"), ("tongue", r"tongues?"), ("beef-steak", r"steaks?|rib-?eye"),
    ("rabbit", r"rabbits?"), ("quail", r"quails?"), ("pheasant", r"pheasants?"),
    ("chicken", r"chickens?|hens?"), ("duck", r"ducks?"), ("goose", r"goose"),
    ("turkey", r"turkeys?"), ("char-side", r"char\b"), ("salmon-side", r"salmon"),
    ("trout", r"trouts?"), ("mackerel", r"mackerels?|herrings?|sardines?"),
    ("white-fillet", r"cod|haddock|pollock|white fish"), ("chuck", r"beef"),
    ("pork-shoulder", r"pork|veal"), ("lamb-shoulder", r"lamb|mutton"),
)  # fmt: skip
"""Cuts by the words of recipes, the first that is found; a bare kind is its usual stewing cut."""


def cut_in(line: str) -> str | None:
    """The cut that a line names.

    Parameters: line of a recipe.
    Returns: its id; None for none, and for stock, sauce and bones of a meat.
    Raises: nothing.

    >>> cut_in("12 quail, halved"), cut_in("500 ml chicken stock")
    ('quail', None)
    """
    if re.search(r"\b(?:stock|broth|sauce|cube|fat|bones?)\b", line, re.IGNORECASE):
        return None
    return next(
        (cut for cut, words in CUT_WORDS if re.search(rf"\b(?:{words})\b", line, re.IGNORECASE)),
        None,
    )
