"""Side jobs without a piece: they use the same hands, pots, fridge and oven, on the same clock."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Final, Literal

from pantry_core.errors import within
from pantry_core.quantities import Minutes, Percent
from pantry_core.routes.step import RouteStep
from pantry_core.rules.rule import Mark, Rule
from pantry_core.text import say

JobName = Literal[
    "dough", "bread", "stock", "sauce", "cold-sauce", "reduction", "roots", "roast-roots",
    "cabbage", "rice", "pickle", "wrap", "other",
]  # fmt: skip

AT_THE_TABLE: Final = ("carve", "serve")
MOST_MADE_G: Final = 50_000.0
USUAL_REDUCED_TO: Final = 0.5
STOCK_COOLS_H = Rule(
    "stock-cools", 6.0, "h", say("FDA Food Code 3-501.14, to {5 °C} in all"), Mark.MEMORY
)
STOCK_KEEPS_H = Rule("stock-keeps", 72.0, "h", "USDA, 3 to 4 days in the fridge", Mark.MEMORY)
BOILS_OFF_KG_H = Rule(
    "boils-off", 1.5, "kg/h", "water that a wide pot loses at a full boil", Mark.PRACTICE
)
ROOTS_OVEN_C: Final = 200.0
ROOTS_BETWEEN_C: Final = (150.0, 230.0)
ROOTS_ABOVE_C = Rule(
    "roots-above", 95.0, "°C", "roots brown by how much hotter than this the oven is", Mark.PRACTICE
)
RAW_LIQUID_BOILS_MIN = Rule(
    "raw-liquid-boils", 1.0, "min", "what raw meat lay in, at a full rolling boil", Mark.PRACTICE
)


@dataclass(frozen=True, slots=True)
class Feed:
    """What a side job is made of: its step that waits, and for the end of which kind of step.

    Of several kinds the first that the other dish has counts, of several steps of it the last, at
    `place` where it has one there.
    """

    step: str
    kinds: tuple[str, ...]
    place: str | None = None


@dataclass(frozen=True, slots=True)
class Made:
    """A step of the dish that a side job is made from."""

    step: str
    kind: str
    place: str | None


@dataclass(frozen=True, slots=True)
class Part:
    """An ingredient: so much of it in what is made [g/g]."""

    name: str
    share: float


@dataclass(frozen=True, slots=True)
class Job:
    """A side job: what it is, what it gives up, how much a head [g], of what, and its steps.

    `steps` are those for so much made [g], boiled down to such a part of what it is made of.
    """

    id: JobName
    name: str
    saying: str
    gives_up: str
    a_head_g: float
    parts: tuple[Part, ...]
    steps: Callable[[float, float], tuple[RouteStep, ...]]
    feed: Feed | None = None

    @property
    def is_reduced(self) -> bool:
        """Whether the cook says how far it is boiled down."""
        return self.steps in (_stock, _reduction)


def job_route(
    job: Job, mass_g: float, reduced_to: float = USUAL_REDUCED_TO
) -> tuple[RouteStep, ...]:
    """The steps of a side job.

    Parameters: job; mass_g, how much is made [g]; reduced_to, the part that is left of what is
    boiled down [-].
    Returns: its steps, windows [h], hands [min]. Times are common practice.
    Raises: OutOfRange for a mass outside 1 g to 50 kg, a part outside 0.05 to 1.
    """
    return job.steps(
        within("mass_g", mass_g, 1.0, MOST_MADE_G, "g"),
        within("reduced_to", reduced_to, 0.05, 1.0, "of it"),
    )


def boiling_down_h(mass_g: float, reduced_to: float) -> float:
    """How long so much takes to be boiled down to [h].

    Parameters: mass_g, what is left [g]; reduced_to, the part of what it was [-].
    Raises: nothing. Source: `BOILS_OFF_KG_H`.

    >>> round(boiling_down_h(800.0, 0.2), 1)
    2.1
    """
    lost_kg = mass_g * (1.0 / reduced_to - 1.0) / 1000.0
    return lost_kg / BOILS_OFF_KG_H.value


def fed_by(job: Job, steps: Sequence[Made]) -> tuple[str, str]:
    """Which step of a side job waits for which step of a dish that it is made of.

    Parameters: job; steps of the other dish in order, at least one.
    Returns: the step of the job, its last where it says nothing; and the step that is waited for,
    the last before the table where there is none of its kinds.

    >>> fed_by(JOBS["roots"], [Made("simmer", "cook", "hob"), Made("glaze", "cook", "oven")])
    ('in-broth', 'simmer')
    """
    feed = job.feed or Feed(job_route(job, 1000.0)[-1].id, ())
    for kind in feed.kinds:
        of_kind = [each for each in steps if each.kind == kind]
        at_place = [each for each in of_kind if each.place == feed.place]
        if of_kind:
            return feed.step, (at_place or of_kind)[-1].step
    before_the_table = [each.step for each in steps if each.kind not in AT_THE_TABLE]
    return feed.step, (before_the_table or [steps[-1].step])[-1]


_KNEAD: Final = RouteStep(
    "mix", "make", "Mix and knead the dough", "Mix, knead until it stretches", "counter",
    0.5, 0.5, 0.5, 30,
)  # fmt: skip


def _dough(mass_g: float, reduced_to: float) -> tuple[RouteStep, ...]:
    return (
        _KNEAD,
        RouteStep("dough-rest", "dough-rest", "The dough rests cold", "Into an oiled tub, covered",
                  "fridge", 18.0, 24.0, 48.0, 5),
        RouteStep("shape", "make", "Shape it", "Shape it, onto the tray", "counter",
                  0.25, 0.25, 0.25, 15),
        RouteStep("prove", "prove", "Prove", "Covered, until it springs back slowly", "counter",
                  1.0, 1.5, 2.5),
        RouteStep("bake", "cook", "Bake", "Oven at {@220 °C}", "oven", 0.5, 0.75, 1.0, 5,
                  medium="oven", medium_c=220.0),
        RouteStep("cool", "cool", "Cool on a rack", "Out of the tin", "counter", 0.5, 1.0, 6.0, 5),
    )  # fmt: skip


def _bread(mass_g: float, reduced_to: float) -> tuple[RouteStep, ...]:
    return (
        _KNEAD,
        RouteStep("rise", "prove", "Let it rise", "Covered, until it has doubled", "counter",
                  1.5, 2.0, 3.5),
        RouteStep("shape", "make", "Shape it", "Into one flat bread or several", "counter",
                  0.25, 0.25, 0.25, 15),
        RouteStep("prove", "prove", "Prove", "Covered, until it springs back slowly", "counter",
                  0.5, 0.75, 1.5),
        RouteStep("bake", "cook", "Bake", "Oven at {@230 °C}, until it sounds hollow", "oven",
                  0.25, 0.5, 0.75, 5, medium="oven", medium_c=230.0),
        RouteStep("cool", "cool", "Cool on a rack", "Under a cloth, so that it stays soft",
                  "counter", 0.25, 0.5, 8.0, 5),
    )  # fmt: skip


def _stock(mass_g: float, reduced_to: float) -> tuple[RouteStep, ...]:
    boils_h = max(0.75, _quarters(boiling_down_h(mass_g, reduced_to)))
    return (
        RouteStep("roast-bones", "cook", "Roast the bones", "Oven at {@200 °C} until brown", "oven",
                  0.75, 0.75, 1.0, 10, medium="oven", medium_c=200.0),
        RouteStep("simmer-stock", "cook", "Simmer overnight", "Cover with cold water; skim once; "
                  "lid on, into the oven at {@100 °C}, where no flame is left alone", "oven",
                  8.0, 10.0, 14.0, 10, medium="oven", medium_c=100.0),
        RouteStep("cool-stock", "cool", "Strain and cool", "Strain; into an ice bath or {5 cm} "
                  "deep: {57 to 21 °C} within 2 h, to {5 °C} within 6 h in all", "counter",
                  0.75, 1.0, 2.0, 10),
        RouteStep("set-stock", "set", "Set cold", "Into the fridge, uncovered until cold",
                  "fridge", 8.0, 12.0, STOCK_KEEPS_H.value, 5),
        RouteStep("reduce", "cook", "Lift the fat, boil it down", say(
                      "Lift the fat off; at a full boil in a wide pot, {down_to}",
                      down_to=_down_to(reduced_to),
                  ), "hob",
                  *_around(boils_h), 15),
    )  # fmt: skip


def _reduction(mass_g: float, reduced_to: float) -> tuple[RouteStep, ...]:
    boils_h = max(0.25, _quarters(boiling_down_h(mass_g, reduced_to)))
    return (
        RouteStep("boil", "make", "Strain and boil", say(
                      "Strain it; what raw meat lay in boils for {minutes} at a full boil "
                      "before anything else",
                      minutes=Minutes(RAW_LIQUID_BOILS_MIN.value),
                  ),
                  "hob", 0.25, 0.25, 0.5, 10),
        RouteStep("reduce", "cook", "Boil it down", say(
                      "At a full boil in a wide pot, {down_to}; taste, it grows saltier",
                      down_to=_down_to(reduced_to),
                  ), "hob",
                  *_around(boils_h), 5),
        RouteStep("finish", "cook", "Finish the sauce", "Season, and keep it at {60 °C} or above",
                  "hob", 0.25, 0.25, 1.5, 10),
    )  # fmt: skip


def _sauce(mass_g: float, reduced_to: float) -> tuple[RouteStep, ...]:
    return (
        RouteStep("make-sauce", "make", "Make the sauce", "Cook it; what a raw piece lay in is "
                  "boiled first", "hob", 0.5, 0.5, 1.0, 30),
        RouteStep("sauce-waits", "set", "It waits cold", "Cool it quickly, covered", "fridge",
                  1.0, 12.0, STOCK_KEEPS_H.value, 10),
        RouteStep("warm-sauce", "cook", "Warm it through", "To the boil, once", "hob",
                  0.25, 0.25, 0.5, 5),
    )  # fmt: skip


def _cold_sauce(mass_g: float, reduced_to: float) -> tuple[RouteStep, ...]:
    return (
        RouteStep("make-sauce", "make", "Stir the sauce", "Chop, stir, season; covered",
                  "counter", 0.5, 0.5, 0.5, 30),
        RouteStep("sauce-waits", "set", "It draws cold", "Into the fridge, covered", "fridge",
                  1.0, 4.0, 48.0, 5),
        RouteStep("stir", "serve", "Stir, taste, dish up", "Stir it once more", "counter",
                  0.25, 0.25, 0.25, 5),
    )  # fmt: skip


def _roots(mass_g: float, reduced_to: float) -> tuple[RouteStep, ...]:
    return (
        RouteStep("peel", "make", "Peel and cut", "Roots in pieces, cabbage in wedges; covered "
                  "with cold water", "counter", 0.5, 0.5, 24.0, 30),
        RouteStep("in-broth", "cook", "Into the broth", "Into the boiling broth while the meat "
                  "rests: roots first, cabbage ten minutes later, until a knife slides in", "hob",
                  0.5, 0.5, 0.75, 10, until={"look": True}),
    )  # fmt: skip


def _roast_roots(mass_g: float, reduced_to: float) -> tuple[RouteStep, ...]:
    return (
        RouteStep("peel", "make", "Peel and cut", "In pieces of one size, oiled and salted",
                  "counter", 0.5, 0.5, 8.0, 30),
        RouteStep("roast", "cook", "Roast the roots", "Oven at {@200 °C}, turned once", "oven",
                  0.75, 1.0, 1.25, 5, until={"look": True}, medium="oven",
                  medium_c=ROOTS_OVEN_C),
    )  # fmt: skip


def roots_last(heat_c: float) -> float:
    """How much longer roots roast at another heat than at the usual one, as a factor [-].

    Parameters: heat_c, of the oven [°C].
    Returns: the factor on their hours.
    Raises: OutOfRange outside 150 to 230 °C, where roots dry out or burn.
    Source: common practice: an hour at 200 °C, an hour and a half at 165.
    """
    within("the oven", heat_c, *ROOTS_BETWEEN_C, "°C")
    return (ROOTS_OVEN_C - ROOTS_ABOVE_C.value) / (heat_c - ROOTS_ABOVE_C.value)


def _cabbage(mass_g: float, reduced_to: float) -> tuple[RouteStep, ...]:
    return (
        RouteStep("shred", "make", "Shred the cabbage", "Fine; salted lightly", "counter",
                  0.5, 0.5, 12.0, 30),
        RouteStep("braise", "cook", "Braise the cabbage", "Lid on, low; stirred now and then",
                  "hob", 0.75, 1.0, 1.5, 15),
        RouteStep("keep-warm", "keep-warm", "Keep it warm", "Lid on, at {60 °C} or above", "hob",
                  0.0, 0.0, 1.5),
    )  # fmt: skip


def _rice(mass_g: float, reduced_to: float) -> tuple[RouteStep, ...]:
    return (
        RouteStep("rinse", "make", "Rinse the rice", "Until the water stays clear", "counter",
                  0.25, 0.25, 0.5, 10),
        RouteStep("boil", "cook", "Cook the rice", "To the boil, then low under its lid", "hob",
                  0.25, 0.25, 0.5, 5),
        RouteStep("swell", "stand", "Let it swell", "Lid on, off the heat, at {60 °C} or above; "
                  "what is left is cold within two hours", "counter", 0.25, 0.25, 1.0),
    )  # fmt: skip


def _pickle(mass_g: float, reduced_to: float) -> tuple[RouteStep, ...]:
    return (
        RouteStep("draw", "draw", "Slice, salt, let it draw", "Sliced, salted, in a sieve",
                  "counter", 0.5, 0.75, 1.0, 15),
        RouteStep("pour", "make", "Pour the vinegar over", "Squeeze out; vinegar and sugar, hot, "
                  "over it; let it cool", "counter", 0.5, 0.5, 1.0, 15),
        RouteStep("pickle", "set", "It pickles", "Covered, into the fridge; eaten within the week",
                  "fridge", 12.0, 24.0, 96.0, 5),
    )  # fmt: skip


def _wrap(mass_g: float, reduced_to: float) -> tuple[RouteStep, ...]:
    return (
        RouteStep("fill", "serve", "Fill and wrap", "All of it within reach; fill, fold, wrap",
                  "counter", 0.25, 0.25, 0.5, 15),
    )  # fmt: skip


def _other(mass_g: float, reduced_to: float) -> tuple[RouteStep, ...]:
    return (
        RouteStep("make", "make", "Make it", "", "counter", 0.5, 0.5, 1.0, 30),
    )  # fmt: skip


def _quarters(hours: float) -> float:
    return round(4.0 * hours) / 4.0


def _around(hours: float) -> tuple[float, float, float]:
    """Least, usual and most of a time that the pot and the flame decide, in quarters [h]."""
    return max(0.25, _quarters(0.75 * hours)), hours, max(hours, _quarters(1.5 * hours))


def _down_to(part: float) -> str:
    words = {0.5: "by half", 1 / 3: "to a third", 0.25: "to a quarter", 0.2: "to a fifth"}
    near = next((word for value, word in words.items() if abs(value - part) < 0.01), None)
    return near or say("until {part} of it is left", part=Percent(100.0 * part, 0))


def _parts(*shares: tuple[str, float]) -> tuple[Part, ...]:
    return tuple(Part(name, share) for name, share in shares)


_FLOUR = _parts((say("flour"), 0.6), (say("salt"), 0.012), (say("yeast"), 0.006))
JOBS: dict[str, Job] = {
    job.id: job
    for job in (
        Job("dough", "Dough that rests", "rests a day or two in the fridge, then is baked",
            "It costs fridge room for a day; more than two days and it turns sour.", 130.0,
            _FLOUR, _dough),
        Job("bread", "Bread of the day", "mixed, risen and baked within an afternoon",
            "It costs the oven for half an hour, and the taste of a long rest.", 130.0,
            _FLOUR, _bread),
        Job("stock", "Stock", "simmers overnight, cools, sets, and is boiled down",
            "It costs the oven for a night, and must be cold within 6 h.", 200.0,
            _parts((say("bones"), 1.5), (say("onion"), 0.1),
                   (say("roots for the stock"), 0.15)), _stock,
            Feed("roast-bones", ("trim", "cut"))),
        Job("reduction", "Sauce boiled down", "from a stock, a braise, or what a marinade leaves",
            "It costs time at the hob, and grows saltier as it shrinks.", 60.0,
            _parts((say("butter"), 0.05)), _reduction,
            Feed("boil", ("set", "lift", "cook"))),
        Job("sauce", "Sauce, hot", "made ahead, warmed before it is served",
            "It is less fresh; a thickened one may split when warmed.", 80.0,
            _parts((say("onion"), 0.15), (say("butter"), 0.08),
                   (say("wine"), 0.3), (say("stock"), 0.6)), _sauce,
            Feed("make-sauce", ("set", "lift", "cook"))),
        Job("cold-sauce", "Sauce, cold", "stirred, and left to draw",
            "It costs nothing but two days: herbs grey.", 60.0,
            _parts((say("yoghurt"), 0.75), (say("herbs"), 0.1), (say("oil"), 0.1)), _cold_sauce),
        Job("roots", "Roots and cabbage in the broth", "cooked in it while the meat rests",
            "You lose a clear broth, and the meat waits for them.", 250.0,
            _parts((say("roots"), 0.6), (say("cabbage"), 0.4)), _roots,
            Feed("in-broth", ("cook",), "hob")),
        Job("roast-roots", "Roots, roasted", "in a hot oven, beside or after the roast",
            "It costs the oven for an hour.", 200.0,
            _parts((say("roots"), 1.1), (say("oil"), 0.04)), _roast_roots),
        Job("cabbage", "Cabbage, braised", "shredded ahead, braised under a lid",
            "It costs a ring of the hob for an hour.", 180.0,
            _parts((say("cabbage"), 0.9), (say("onion"), 0.1), (say("butter"), 0.04)), _cabbage),
        Job("rice", "Rice", "in half an hour, at the end",
            "It costs a ring of the hob at the busiest time.", 180.0,
            _parts((say("rice"), 0.42),), _rice),
        Job("pickle", "Pickle for the side", "salted, drawn, in vinegar a day ahead",
            "It does not keep long: a fridge pickle, eaten within the week.", 60.0,
            _parts((say("cucumber or onion"), 0.9), (say("vinegar"), 0.3),
                   (say("sugar"), 0.1), (say("salt"), 0.02)),
            _pickle),
        Job("wrap", "Filled and wrapped", "other dishes, put together into one at the end",
            "There is no slow end: all has to be ready at once.", 250.0, (), _wrap,
            Feed("fill", ("stand", "cook", "cool", "set"))),
        Job("other", "Something else", "one step to begin with; add your own",
            "Nothing is known of it: its times are yours.", 100.0, (), _other),
    )
}  # fmt: skip
