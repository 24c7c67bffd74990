"""From the words of a recipe to an ingredient; what could be two things is asked about."""

import re
from dataclasses import dataclass

_CURE = r"(?:pink |tinted )?cur(?:e|ing)(?: salt)?"
_NUMBER = r",?\s*(?:no\.?|nr\.?|number|#)?\s*"


@dataclass(frozen=True, slots=True)
class Match:
    """An ingredient, or several to choose from; `question` says what is in doubt.

    The first of `keys` is the likely one; with `must_answer` nothing is taken for granted.
    """

    keys: tuple[str, ...]
    question: str = ""
    must_answer: bool = False


def _sure(key: str) -> Match:
    return Match((key,))


_WHICH_SALT = "Which salt is it? A cup of one weighs twice a cup of another."
_WHICH_CURE = "Which curing salt is it? The label tells."
_RULES: tuple[tuple[str, Match], ...] = (
    (r"\bsodium nitrite\b|\bpure nitrite\b",
     Match((), "Pure nitrite does not belong in a kitchen; a curing salt would do.")),
    (rf"{_CURE}{_NUMBER}(?:2|ii|two)\b", _sure("curing-salt-2")),
    (rf"{_CURE}{_NUMBER}(?:1|i|one)\b", _sure("curing-salt-1")),
    (r"\bnitrite (?:curing |pickling )?salt\b", _sure("nitrite-salt")),
    (r"\bsalt ?pet(?:re|er)\b|\bpotassium nitrate\b", _sure("saltpetre")),
    (rf"\b{_CURE}\b|\bcured? salt\b",
     Match(("curing-salt-1", "curing-salt-2", "nitrite-salt"), _WHICH_CURE)),
    (r"\bcelery (?:juice )?powder\b", _sure("celery-powder")),
    (r"\bpink (?:\w+ )?rock salt\b|\brock salt,? pink\b|"
     r"\bpink (?:sea|mountain|finishing|himalayan) salt\b|\bhimalayan\b.*\bsalt\b",
     _sure("salt-rock-pink")),
    (r"\bpink salt\b|\bsalt,? pink\b",
     Match(("salt-rock-pink", "curing-salt-1"),
           "Pink rock salt, or pink curing salt? One seasons, the other can kill.",
           must_answer=True)),
    (r"\bcelery (?:salt|seeds?)\b", _sure("spice")),
    (r"\bcompact coarse salt\b", _sure("salt-compact-coarse")),
    (r"\bfla(?:ky|ked?s?)\b.*\bsalt\b|\bsalt flakes\b|\bhollow\b.*\bsalt\b",
     _sure("salt-hollow-flake")),
    (r"\b(?:coarse|kosher|rock|grey|gray)\b.*\bsalt\b|\bsalt,? (?:coarse|kosher)\b",
     Match(("salt-compact-coarse", "salt-hollow-flake"), _WHICH_SALT)),
    (r"\b(?:pickling|canning|preserving)\b.*\bsalt\b", _sure("salt-pickling")),
    (r"\bfine\b.*\bsea salt\b|\bsea salt,? fine\b", _sure("salt-fine-sea")),
    (r"\bsea salt\b",
     Match(("salt-fine-sea", "salt-compact-coarse", "salt-hollow-flake"), _WHICH_SALT)),
    (r"\b(?:table|fine|iodi[sz]ed|cooking|common)\b.*\bsalt\b", _sure("salt-table")),
    (r"(?<!un)\bsalt\b(?! pork| cod| beef)",
     Match(("salt-table", "salt-fine-sea", "salt-compact-coarse", "salt-hollow-flake"),
           _WHICH_SALT)),
    (r"\b(?:treacle|molasses)\b", _sure("treacle")),
    (r"\bhoney\b", _sure("honey")),
    (r"\bsyrup\b", _sure("syrup")),
    (r"\b(?:brown|muscovado|demerara|dark|light|raw cane)\b.*\bsugar\b", _sure("brown-sugar")),
    (r"\bsugar\b", _sure("sugar")),
    (r"\bfish sauce\b", _sure("fish-sauce")),
    (r"\bsoy(?:a)? ?(?:sauce)?\b|\btamari\b|\bshoyu\b", _sure("soy-sauce")),
    (r"\bvinegar\b", _sure("vinegar")),
    (r"\b(?:wine|sherry|port|vermouth|madeira)\b", _sure("wine")),
    (r"\b(?:beer|ale|stout|porter|cider|lager)\b", _sure("beer")),
    (r"\b(?:lemon|lime|orange|citrus)s?\b.*\bjuice\b|\bjuice of\b", _sure("citrus-juice")),
    (r"\banother sauce\b", _sure("other-sauce")),
    (r"\boil\b", _sure("oil")),
    (r"\bbuttermilk\b", _sure("buttermilk")),
    (r"\byogh?urt\b", _sure("yoghurt")),
    (r"\b(?:ground|dried|powdered|candied)\b.*\bginger\b|\bginger (?:powder|,? ground)\b",
     _sure("spice")),
    (r"\bpineapple\b", _sure("pineapple")),
    (r"\bpapaya\b", _sure("papaya")),
    (r"\bkiwis?\b|\bkiwi ?fruit\b", _sure("kiwi")),
    (r"\bpears?\b", _sure("pear")),
    (r"\bginger\b", _sure("ginger")),
    (r"\bice(?: cubes?)?\b(?! water)", _sure("ice")),
    (r"\bwater\b", _sure("water")),
    (r"\bgarlic\b", _sure("garlic")),
    (r"\b(?:parsley|dill|coriander leaves|mint|basil|tarragon|chives|fresh herbs)\b",
     _sure("herbs")),
    (r"\b(?:pepper|peppercorns?|coriander|mustard|cloves?|allspice|juniper|cinnamon|anise|aniseed|"
     r"chill?i(?:es)?|chile|paprika|caraway|fennel|cumin|nutmeg|mace|cardamom|bay|thyme|rosemary|"
     r"sage|oregano|marjoram|savory|turmeric|ginger|onions?|shallots?|carrots?|leeks?|celery|"
     r"zest|peel|tea|coffee|sesame|herbs?|spices?|seeds?|seasoning)\b", _sure("spice")),
)  # fmt: skip

_MEATS = {
    "pork": r"\b(?:pork|gammon|ham|belly|bacon|loin|trotters?)\b",
    "beef": r"\b(?:beef|brisket|silverside|topside|rump|tongue|steaks?)\b",
    "lamb": r"\b(?:lamb|mutton|goat|kid)\b",
    "game": r"\b(?:venison|boar|rabbit|hare)\b",
    "poultry": r"\b(?:chicken|duck|goose|turkey|hen|bird|poultry|quails?)\b",
    "fish": r"\b(?:trout|salmon|cod|haddock|mackerel|herrings?|fish|fillets?)\b(?! sauce)",
}


def match(words: str) -> Match | None:
    """The ingredient that words mean, None where none is known.

    Parameters: words, of a recipe's line without amount and unit.
    Returns: the match. Pink rock salt is never taken for curing salt, nor the other way.

    >>> match("pink rock salt, ground").keys, match("curing salt no. 1").keys
    (('salt-rock-pink',), ('curing-salt-1',))
    >>> match("pink salt").must_answer
    True
    """
    tidy = " ".join(words.lower().replace("-", " ").split())
    for pattern, found in _RULES:
        if re.search(pattern, tidy):
            return found
    return None


def meats(words: str) -> tuple[str, ...]:
    """The kinds of meat that words name.

    >>> meats("5 lb pork belly"), meats("fish sauce")
    (('pork',), ())
    """
    tidy = words.lower()
    return tuple(kind for kind, pattern in _MEATS.items() if re.search(pattern, tidy))
