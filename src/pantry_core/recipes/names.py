"""From the words of a recipe to an ingredient; what could be two things is asked about.

English, French, German, Spanish and Italian names. The first pattern that is found decides, so what
could hurt stands first: pure nitrite, curing salts, then whatever holds salt without saying how
much, then plain salt.
"""

import re
from dataclasses import dataclass
from typing import Final

from pantry_core.foods.ingredient import SALTY, ingredient
from pantry_core.foods.words import food_of, foods_named

_CURE = r"(?:pink |tinted )?(?:cur(?:e|ing)|cured)(?: (?:salt|powder|mix))?"
_PINK = r"(?:pink|cur(?:e|ing)) salt"
_NUMBER = r"[ ,]*(?:no\.?|nr\.?|n[º°]|number|numero|#)?\s*"
_NUMBERED = r"(?:no\.?|nr\.?|n[º°]|number|#)\s*"
ALL_CURES: Final = (
    "curing-salt-1", "curing-salt-2", "nitrite-salt", "saltpetre", "celery-powder",
)  # fmt: skip
PLAIN_SALTS: Final = (
    "salt-table", "salt-fine-sea", "salt-pickling", "salt-compact-coarse", "salt-hollow-flake",
)  # fmt: skip


@dataclass(frozen=True, slots=True)
class Match:
    """An ingredient, or several to choose from; `question` says what is in doubt.

    With `must_answer` nothing is taken for granted; with `by_volume` only where it is measured by
    the spoon, for by weight all of them are alike.
    """

    keys: tuple[str, ...]
    question: str = ""
    must_answer: bool = False
    by_volume: bool = False


def _sure(key: str) -> Match:
    return Match((key,))


def _ask(question: str, *keys: str) -> Match:
    return Match(keys, question, must_answer=True)


_WHICH_SALT = "Which salt is it? A cup of one weighs twice a cup of another."
_WHICH_CURE = "Which curing salt is it? The label tells."
_LABEL = "How salty is it? Take the salt from its label."


def _salts(*keys: str) -> Match:
    return Match(keys, _WHICH_SALT, must_answer=True, by_volume=True)


_PURE = _ask(
    "Pure nitrite or nitrate does not belong in a kitchen. Which curing salt is meant?", *ALL_CURES
)
CURED: Final = _ask(_WHICH_CURE, *ALL_CURES)
"""What is said to hold nitrite, and not which curing salt it is."""
_PINK_SALT = _ask(
    "Pink rock salt, or pink curing salt? One seasons, the other can kill.",
    "salt-rock-pink", *ALL_CURES,
)  # fmt: skip
_MIX = _ask(f"A mix that may hold salt. {_LABEL}", "salted-mix", "spice")
_CURE_MIX = _ask(f"A mix that may hold curing salt. {_LABEL}", "salted-mix", *ALL_CURES)
_STOCK = _ask(
    "Is it salted? If so, take the salt from its label.", "juice", "other-sauce", "salted-mix"
)
_SALTED = _ask(_LABEL, "other-sauce")
_BRINE = _ask(
    "Salt water of what strength? Write its water and its salt on two lines.", "other-sauce"
)
_SAUERKRAUT = (
    r"\b(?:capers?|(?<!huile d')olives?(?! oil)|anchov(?:y|ies)|feta|parmesan|cheese|bacon bits)\b"
)

_RULES: tuple[tuple[str, Match], ...] = (
    (rf"\b{_CURE}{_NUMBER}(?:2|ii|two)\b|\b{_PINK}{_NUMBER}(?:2|ii|two)\b|"
     rf"{_NUMBERED}2\b.*\b(?:{_CURE}|{_PINK})\b", _sure("curing-salt-2")),
    (rf"\b{_CURE}{_NUMBER}(?:1|i|one)\b|\b{_PINK}{_NUMBER}(?:1|i|one)\b|"
     rf"{_NUMBERED}1\b.*\b(?:{_CURE}|{_PINK})\b", _sure("curing-salt-1")),
    (r"\bnitrited?(?: \w+)?(?: curing| pickling)? salt\b|\bsalt,? (?:with )?nitrited?\b|"
     r"\bnitritp[öo]kelsalz\b|\bnps\b|\bsel (?:de )?nitrit[ée]\w*\b|\bsel au nitrite\b|"
     r"\bsal nitrit(?:ada|o)\b|\bsal nitrificad[ao]\b|\bsale nitrit\w+\b|\bnitritsalz\b",
     _sure("nitrite-salt")),
    (r"\bsalt ?pet(?:re|er)\b|\bpotassium nitrate\b|\bsalp[êe]tre\b|\b(?:kali)?salpeter\b|"
     r"\bkaliumnitrat\b|\bsalitre\b|\bsalnitro\b|\bnitrat[eo] (?:de potassium|de potasio|di "
     r"potassio)\b|\bnitrato pot[áa]sico\b|\be ?252\b", _sure("saltpetre")),
    (r"\bnitr[ia]t[eo]?s?\b|\bnatriumnitr[ia]t\b|\bnitr[ia]to s[óo]dico\b|\be ?25[01]\b", _PURE),
    (r"\bcelery (?:juice )?powder\b|\b(?:cultured|fermented) celery\b|\bselleriepulver\b|"
     r"\bpoudre de c[ée]leri\b|\bapio en polvo\b|\bsedano in polvere\b", _sure("celery-powder")),
    (rf"\b(?:brine|brining|{_CURE}|curing|ham|bacon|corned beef) (?:mix|blend|kit)\b", _CURE_MIX),
    (r"\b(?:mix|mixture|blend|mischung|m[ée]lange|mezcla|miscela)\b", _MIX),
    (r"\b(?:sal(?:es)?|sale|sel|salz)\b.*\bnitr\w+", CURED),
    (rf"\b{_CURE}\b|\b\w*p[öo]kelsalz\b|\bsel de (?:salaison|saumure)\b|\bsal (?:de |para )?"
     rf"cura(?:do|r|nte)?\b|\bsale (?:da|per) (?:salumi|concia)\b|\b{_NUMBERED}[12]\b(?! salt)",
     CURED),
    (r"\bpink (?:\w+ )?rock salt\b|\brock salt,? pink\b|"
     r"\bpink (?:sea|mountain|finishing|himalayan) salt\b|\bhimala\w+\b|\bpink steinsalz\b",
     _sure("salt-rock-pink")),
    (r"\bpink salt\b|\bsalt,? pink\b|\bsel rose\b|\brosa salz\b|\bsal rosada?\b|\bsal rosa\b|"
     r"\bsale rosa\b", _PINK_SALT),
    (r"\b(?:celery|garlic|onion|seasoned|seasoning|herb|herbed|truffle|smoked|lemon|vegetable|"
     r"spiced?|black|low sodium|lo|lite|light) salts?\b|\bkr[äa]utersalz\b|\bselleriesalz\b|"
     r"\bsel (?:de c[ée]leri|aux herbes)\b|\bsal de apio\b|\bsale aromatico\b|\bmsg\b",
     _MIX),
    (r"\b(?:salt(?:ed|y)?|sea|brined?|pickle|pickling) ?water\b|\bbrine\b|\bsalzwasser\b|"
     r"\bsalzlake\b|\blake\b|\beau (?:sal[ée]e|de mer)\b|\bsaumure\b|\bagua (?:salada|de mar)\b|"
     r"\bsalmuera\b|\bacqua (?:salata|di mare)\b|\bsalamoia\b", _BRINE),
    (r"\b(?:stock|broth|bouillon|consomm[ée])(?: cubes?| powder| granules)\b|\bcubes?\b(?<!ice "
     r"cubes)(?<!ice cube)|\bbr[üu]hw[üu]rfel\b|\bcubos? de caldo\b|\bdad[oi]\b|\bgravy powder\b",
     _MIX),
    (r"\b(?:stock|broth|bouillon|consomm[ée]|br[üu]he|fond|caldo|brodo)\b", _STOCK),
    (r"\bseasonings?\b|\brubs?\b|\ball purpose\b|\badobo\b|\bw[üu]rzmischung\b|"
     r"\bassaisonnement\b|\bcondiment\w*\b|\bspice (?:mix|blend)\b|\bmarinade mix\b|"
     r"\blemon pepper\b|\bdry soup\b|\bsoup mix\b", _MIX),
    (r"\b(?:oyster|hoisin|worcester\w*|teriyaki|barbecue|bbq|hot|chill?i|black bean|tomato|"
     r"steak|brown|sriracha) sauce\b|\bmiso\b|\bketchup\b|\bprepared mustard\b|\bdijon\w*\b|"
     r"\bmustard paste\b|\bmayonnaise\b|\bmaggi\b|\bw[üu]rze\b|\bsalted butter\b|"
     rf"\bbouillon\b|{_SAUERKRAUT}", _SALTED),
    (r"\b(?:low|reduced|less)[ -](?:salt|sodium)\b", _SALTED),
    (r"\bfish sauce\b|\bfischso(?:ss|ß)e\b|\bsauce de poisson\b|\bsalsa de pescado\b|"
     r"\bsalsa di pesce\b|\bcolatura\b", _sure("fish-sauce")),
    (r"\bsoy(?:a)? ?(?:sauce)?\b|\btamari\b|\bshoyu\b|\bsojaso(?:ss|ß)e\b|\bsojasauce\b|"
     r"\bsauce (?:de )?soja\b|\bsalsa (?:de|di) soi?ja\b|\bsalsa di soia\b", _sure("soy-sauce")),
    (r"\bcelery seeds?\b", _sure("spice")),
    (r"\bcompact coarse salt\b", _sure("salt-compact-coarse")),
    (r"\bfla(?:ky|ked?s?)\b.*\bsalt\b|\bsalt flakes\b|\bhollow\b.*\bsalt\b|\bfleur de sel\b|"
     r"\bflor de sal\b|\bfior di sale\b|\bsalzflocken\b|\bsal en escamas\b",
     _sure("salt-hollow-flake")),
    (r"\b(?:coarse|kosher|rock|grey|gray|crystal)\b.*\bsalt\b|\bsalt,? (?:coarse|kosher)\b|"
     r"\bgros sel\b|\bgrobes (?:meer)?salz\b|\bsteinsalz\b|\bsal (?:gruesa|gorda|grosso)\b|"
     r"\bsale grosso\b", _salts("salt-compact-coarse", "salt-hollow-flake")),
    (r"\b(?:pickling|canning|preserving)\b.*\bsalt\b|\beinmachsalz\b", _sure("salt-pickling")),
    (r"\bfine\b.*\bsea salt\b|\bsea salt,? fine\b|\bsel (?:de mer fin|fin de mer)\b|"
     r"\bfeines meersalz\b|\bsal marina fina\b|\bsale marino fino\b|\bsale fino marino\b",
     _sure("salt-fine-sea")),
    (r"\bsea salt\b|\bmeersalz\b|\bsel (?:de mer|marin)\b|\bsal marina\b|\bsale marino\b",
     _salts("salt-fine-sea", "salt-compact-coarse", "salt-hollow-flake")),
    (r"\b(?:table|fine|iodi[sz]ed|cooking|common)\b.*\bsalt\b|\b(?:tafel|koch|speise)salz\b|"
     r"\bfeines salz\b|\bsel (?:fin|de table|de cuisine)\b|\bsal (?:fina|de mesa|com[úu]n)\b|"
     r"\bsale (?:fino|da tavola|da cucina)\b", _sure("salt-table")),
    (r"(?<!un)\bsalt\b(?! pork| cod| beef| fish| herring)|\bsalz\b|\bsel\b|\bsal\b|\bsale\b",
     _salts(*PLAIN_SALTS)),
    (r"\b(?:treacle|molasses|melasse|m[ée]lasse|melaza|melassa)\b", _sure("treacle")),
    (r"\b(?:honey|honig|miel|miele)\b", _sure("honey")),
    (r"\b(?:syrup|sirup|sirop|jarabe|sciroppo)\b", _sure("syrup")),
    (r"\b(?:brown|muscovado|demerara|dark|light|raw cane)\b.*\bsugar\b|\bbrauner zucker\b|"
     r"\brohr(?:roh)?zucker\b|\bcassonade\b|\bsucre (?:roux|brun)\b|"
     r"\baz[úu]car (?:moren[oa]|integral)\b|\bzucchero di canna\b", _sure("brown-sugar")),
    (r"\b(?:sugar|zucker|sucre|az[úu]car|zucchero)\b", _sure("sugar")),
    (r"\b(?:vinegar|vinaigre|\w*essig|vinagre|aceto)\b", _sure("vinegar")),
    (r"\b(?:wine|sherry|port|vermouth|madeira|marsala|sake|\w*wein|vin|vino)\b", _sure("wine")),
    (r"\b(?:beer|ale|stout|porter|cider|lager|bier|bi[èe]re|cidre|cerveza|birra|sidra)\b",
     _sure("beer")),
    (r"\b(?:lemon|lime|citrus)s?\b.*\bjuice\b|\bjuice of\b|\bzitronensaft\b|\blimettensaft\b|"
     r"\bjus de (?:citron|lime)s?\b|\b(?:zumo|jugo) de (?:lim[óo]n|lima)\b|"
     r"\bsucco di lim(?:one|oni|a)\b", _sure("citrus-juice")),
    (r"\b(?:juice|saft|\w+saft|jus|zumo|jugo|succo|coconut milk|milk|milch|lait|leche|latte|"
     r"cola|lemonade|coffee|tea)\b(?! leaves)", _sure("juice")),
    (r"\banother sauce\b", _sure("other-sauce")),
    (r"\boil\b|\b\w*[öo]l\b(?<!kohl)|\bhuile\b|\baceite\b|\bolio\b", _sure("oil")),
    (r"\b(?:buttermilk|buttermilch|babeurre|lait ribot|latticello)\b|\bsuero de (?:leche|"
     r"mantequilla)\b", _sure("buttermilk")),
    (r"\b(?:yogh?urt|joghurt|yaourt|yogur|curd)\b", _sure("yoghurt")),
    (r"\b(?:ground|dried|powdered|candied)\b.*\bginger\b|\bginger (?:powder|,? ground)\b",
     _sure("spice")),
    (r"\b(?:pineapple|ananas|pi[ñn]a)\b", _sure("pineapple")),
    (r"\bpapaya\b", _sure("papaya")),
    (r"\bkiwis?\b|\bkiwi ?fruit\b", _sure("kiwi")),
    (r"\b(?:pears?|birnen?|poires?|peras?|pere)\b", _sure("pear")),
    (r"\b(?:ginger|ingwer|gingembre|jengibre|zenzero)\b", _sure("ginger")),
    (r"\b(?:ice|iced)[ -](?:cold )?water\b|\beiswasser\b|\beau (?:glac[ée]e|froide)\b|"
     r"\bice cold water\b", _sure("water")),
    (r"\bice(?: cubes?)?\b(?! (?:box|chest|bath|cream|bucket|pack))|\beis(?:w[üu]rfel)?\b|"
     r"\bgla[çc]ons?\b|\bglace\b|\bhielo\b|\bghiaccio\b", _sure("ice")),
    (r"\b(?:water|wasser|eau|agua|acqua)\b", _sure("water")),
    (r"\b(?:garlic|knoblauch\w*|ail|ajos?|aglio)\b", _sure("garlic")),
    (r"\b(?:parsley|dill|coriander leaves|cilantro|mint|basil|tarragon|chives|fresh herbs|"
     r"petersilie|persil|perejil|prezzemolo|aneth|eneldo|aneto|basilikum|basilic|albahaca|"
     r"basilico)\b", _sure("herbs")),
    (r"\bmustard\b(?! seeds?| powder)|\bsenf\b(?!k[öo]rner|samen)|\bmoutarde\b|\bmostaza\b|"
     r"\bsenape\b", _ask(f"Seed or powder, or ready made? {_LABEL}", "spice", "other-sauce")),
    (r"\b(?:pepper|peppercorns?|coriander|mustard|cloves?|allspice|juniper|cinnamon|anise|aniseed|"
     r"chill?i(?:es)?|chile|paprika|caraway|fennel|cumin|nutmeg|mace|cardamom|bay|thyme|rosemary|"
     r"sage|oregano|marjoram|savory|turmeric|onions?|shallots?|carrots?|leeks?|celery|saffron|"
     r"zest|peel|sesame|herbs?|spices?|seeds?|vanilla|sumac|lavender|horseradish|"
     r"pfeffer\w*|koriander|nelken?|piment|wacholder\w*|zimt|k[üu]mmel|lorbeer\w*|thymian|"
     r"rosmarin|salbei|senfk[öo]rner|zwiebeln?|gew[üu]rze?|muskat|kr[äa]uter|"
     r"poivre|coriandre|girofle|clous?|geni[èe]vre|cannelle|cumin|laurier|thym|romarin|sauge|"
     r"oignons?|[ée]pices?|muscade|herbes?|"
     r"pimienta|cilantro|clavos?|enebro|canela|comino|laurel|tomillo|romero|salvia|cebollas?|"
     r"especias?|piment[óo]n|or[ée]gano|hierbas?|"
     r"pepe|coriandolo|garofano|ginepro|cannella|cumino|alloro|timo|rosmarino|cipoll[ae]|"
     r"spezie|noce moscata|erbe)\b", _sure("spice")),
)  # fmt: skip
_COMPILED = tuple((re.compile(pattern), found) for pattern, found in _RULES)

UNSALTED: Final = re.compile(
    r"\b(?:un|de)salted\b|\b(?:salt|sodium)[ -]?free\b|\b(?:no|zero)[ -](?:added )?(?:salt|sodium)"
    r"(?: added)?\b|\bwithout (?:any )?salt\b|\bohne salz\b|\b(?:un|nicht )gesalzen\w*\b|"
    r"\bsalzfrei\w*\b|\bsans sel(?: ajout[ée])?\b|\bnon sal[ée]e?\b|\bsin sal\b|\bsenza sale\b|"
    r"\bnon salat[oa]\b"
)
_UNSALTED_KEYS: Final = {_STOCK: "juice", _MIX: "spice", _SALTED: "juice"}

_LOOSE_KEYS: Final = {
    "spice",
    "herbs",
    "juice",
    "other-sauce",
    "salted-mix",
    "pear",
    "ginger",
    "syrup",
    "sugar",
}
"""What a rule knows only roughly, or has to ask about: the table of foods may know it."""

_MEATS = {
    "pork": r"\b(?:pork|gammon|hams?|bell(?:y|ies)|bacon|loins?|trotters?|hocks?|hog|pig|"
            r"schwein\w*|porc|cerdo|maiale|jambon|schinken|jam[óo]n|prosciutto)\b",
    "beef": r"\b(?:beef|brisket|silverside|topside|rump|tongue|steaks?|chuck|"
            r"(?:rind(?:er|fleisch)\w*|vom rind)|b[œo]e?uf|ternera|vacuno|manzo|bue)\b",
    "lamb": r"\b(?:lamb|mutton|goat|kid|lamm\w*|agneau|cordero|agnello|ziege)\b",
    "game": r"\b(?:venison|boar|rabbit|hare|deer|roe|wild(?:schwein)?|kaninchen|lapin|conejo|"
            r"coniglio|hirsch|reh\w*)\b",
    "poultry": r"\b(?:chickens?|ducks?|goose|geese|turkeys?|hens?|birds?|poultry|quails?|"
               r"pheasants?|huhn|h[äa]hnchen|ente|gans|pute|poulet|canard|oie|dinde|pollo|pato|"
               r"pavo|anatra|oca|tacchino)\b",
    "fish": r"\b(?:trout|salmon|cod|haddock|mackerel|herrings?|fish|fillets?|char|lachs|forelle|"
            r"saumon|truite|salm[óo]n|trucha|salmone|trota)\b(?! sauce)",
}  # fmt: skip
_NO_MEAT: Final = re.compile(
    r"\b(?:stock|broth|bouillon|cubes?|sauce|seasoning|rub|cure|curing|mix|spice|br[üu]he|fond|"
    r"bones(?! removed| out)|carcass(?:es)?|giblets|knochen|carcasse|huesos|ossa|"
    r"caldo|brodo|fumet)\b"
)


def match(words: str) -> Match | None:
    """The ingredient that words mean, None where none is known.

    Parameters: words, of a recipe's line without amount and unit.
    Returns: the match. Pink rock salt is never taken for curing salt, nor the other way; what says
    that it is without salt is never taken for salt.

    >>> match("pink rock salt, ground").keys, match("curing salt no. 1").keys
    (('salt-rock-pink',), ('curing-salt-1',))
    >>> match("pink salt").must_answer, match("unsalted butter").keys
    (True, ('butter',))
    >>> match("capers, drained").keys, match("lemon pepper").must_answer
    (('capers',), True)
    """
    tidy = " ".join(words.lower().replace("-", " ").replace("’", "'").split())
    plain = UNSALTED.sub(" ", " ".join(words.lower().split()))
    is_unsalted = UNSALTED.search(tidy) is not None or plain != " ".join(words.lower().split())
    if is_unsalted:
        tidy = " ".join(UNSALTED.sub(" ", plain).replace("-", " ").split())
    by_rule = next((meant for pattern, meant in _COMPILED if pattern.search(tidy)), None)
    if by_rule is None or by_rule.keys[0] in _LOOSE_KEYS:
        of_table = _of_the_table(words, by_rule, is_unsalted=is_unsalted)
        if of_table is not None:
            return of_table
    if by_rule is not None and is_unsalted and by_rule in _UNSALTED_KEYS:
        return _sure(_UNSALTED_KEYS[by_rule])
    if by_rule is None and not is_unsalted and not meats(words):
        numbers = foods_named(words)
        return _sure(numbers[0]) if numbers else None
    return by_rule


def _of_the_table(words: str, by_rule: Match | None, *, is_unsalted: bool) -> Match | None:
    """A food of the table, where it says more than the rule that fits the words."""
    key = food_of(words)
    if key is None:
        return None
    of_table = ingredient(key)
    if is_unsalted and of_table.salt >= SALTY:
        return None
    if by_rule is not None and by_rule.must_answer and of_table.salt < SALTY:
        return None
    return _sure(key)


def meats(words: str) -> tuple[str, ...]:
    """The kinds of meat that words name; stock, sauce and cure of a meat are none.

    >>> meats("5 lb pork belly"), meats("fish sauce"), meats("chicken stock")
    (('pork',), (), ())
    """
    tidy = words.lower()
    if _NO_MEAT.search(tidy):
        return ()
    return tuple(kind for kind, pattern in _MEATS.items() if re.search(pattern, tidy))
