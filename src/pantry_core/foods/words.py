"""From the words of a recipe to a food of the table, in five languages."""

import re
import unicodedata
from collections.abc import Iterator
from functools import lru_cache
from typing import Final

from pantry_core.foods.table import named, rows

_ENDINGS: Final = re.compile(r"(?:en|es|[nseaoi])$")
_WORD: Final = re.compile(r"[a-z]+")
_MADE: Final = """
aceite aceto ahumado bean beurre bit bouillon bread brodo broth burro butter cake caldo candied
canned cheese chip cracker cube cured dried dry eingelegt essig extract farina farine flake
flour fond fume geräuchert gesalzen getrocknet harina huile jugo juice jus lait latte leaf leave
leche less light lite loaf low mantequilla mehl milch milk mix nectar oil olio paste pickled
polvere polvo poudre powder powdered pulver reduced rub saft sal salado salato sale salsa salt
salted salz samen sauce sausage seasoning sec secco seco seed sel sirop sirup smoked sodium soup
squash stock succo syrup tinned vinagre vinaigre vinegar zumo
"""
"""Words that make another thing of a food: an onion is no “onion powder”."""
_KEPT: Final = "dried dry ground leaf leave fresh salted sal seed"
"""Words of those that may stand by what is dried, ground or salted as the table has it."""


_APART: Final = frozenset(("paste",))
"""Words whose stem would be that of another: a paste is no pasta."""


def _stem(word: str) -> str:
    """A word without what makes it plural, in five languages, as far as that goes."""
    bare = re.sub(r"(?<=[^s])s$", "", word)
    if bare in _APART:
        return bare
    return _ENDINGS.sub("", bare) if len(bare) > 4 else bare


def stems(text: str) -> tuple[str, ...]:
    """The words of a text without accents and plurals.

    >>> stems("2 Zwiebeln, gehackt"), stems("gousses d’ail")
    (('zwiebel', 'gehackt'), ('gouss', 'd', 'ail'))
    """
    plain = unicodedata.normalize("NFKD", text.lower().replace("ß", "ss").replace("œ", "oe"))
    bare = "".join(sign for sign in plain if not unicodedata.combining(sign))
    return tuple(map(_stem, _WORD.findall(bare)))


_MAKES_ANOTHER: Final = frozenset(stems(_MADE)) - frozenset(stems(_KEPT))


@lru_cache
def _by_word() -> dict[str, list[tuple[frozenset[str], str]]]:
    """Names of foods by each of their words."""
    index: dict[str, list[tuple[frozenset[str], str]]] = {}
    for key, name in _names():
        words = frozenset(stems(name))
        for word in words:
            index.setdefault(word, []).append((words, key))
    return index


def _names() -> Iterator[tuple[str, str]]:
    for each in named().values():
        for language in each.names:
            for name in language:
                yield each.key, name


def food_of(words: str) -> str | None:
    """The usual food that words name, the one with the most words of its name among them.

    Parameters: words, of a recipe's line without its amount and unit.
    Returns: its key; None where the words name none, or what is made of it (“onion powder”).
    Raises: nothing.

    >>> food_of("large onions, finely chopped"), food_of("Asian pear"), food_of("onion soup mix")
    ('onion', 'asian-pear', None)
    >>> food_of("gesalzene Butter"), food_of("cubes chicken stock"), food_of("orange gelatine")
    ('salted-butter', 'chicken-stock-cube', 'gelatine')
    """
    said = stems(words)
    had = set(said)
    fitting = {
        (names, key) for word in had for names, key in _by_word().get(word, ()) if names <= had
    }
    if not fitting:
        return None
    last = {word: place for place, word in enumerate(said)}
    before_a_comma = len(stems(words.split(",", maxsplit=1)[0])) or len(said)

    def rank(each: tuple[frozenset[str], str]) -> tuple[int, bool, int, str]:
        names, key = each
        places = [last[word] for word in names]
        return len(names), min(places) < before_a_comma, max(places), key

    names, key = max(fitting, key=rank)
    rest = had - names
    if rest & _MAKES_ANOTHER:
        return None
    return key


@lru_cache
def _by_head() -> dict[str, list[tuple[frozenset[str], int, str]]]:
    """The foods of the table by the first word of their description, which says what they are."""
    index: dict[str, list[tuple[frozenset[str], int, str]]] = {}
    for row in rows().values():
        words = stems(row.name)
        index.setdefault(words[0], []).append((frozenset(words), len(row.name), row.number))
    return index


def foods_named(text: str) -> tuple[str, ...]:
    """Foods of the table whose description has all words of a text, and begins with one of them.

    Parameters: text, of a recipe's line without its amount and unit.
    Returns: numbers, the shortest description first; none for a text without words.
    Raises: nothing.

    >>> foods_named("tempeh")[0], foods_named("smoked haddock"), foods_named("unicorn")
    ('16114', ('15035',), ())
    """
    wanted = set(stems(text))
    fitting = sorted(
        (length, number)
        for word in wanted
        for words, length, number in _by_head().get(word, ())
        if wanted <= words
    )
    return tuple(number for _, number in fitting)
