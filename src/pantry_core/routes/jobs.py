"""Side jobs without a piece: they use the same hands, pots, fridge and oven, on the same clock."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Final, Literal

from pantry_core.errors import within
from pantry_core.routes.step import RouteStep
from pantry_core.rules.rule import Mark, Rule

JobName = Literal["dough", "stock", "sauce", "other"]

MOST_MADE_G: Final = 50_000.0
STOCK_COOLS_H = Rule("stock-cools", 6.0, "h", "FDA Food Code 3-501.14, to 5 °C in all", Mark.MEMORY)
STOCK_KEEPS_H = Rule("stock-keeps", 72.0, "h", "USDA, 3 to 4 days in the fridge", Mark.MEMORY)


@dataclass(frozen=True, slots=True)
class Job:
    """A side job: what it is, what it gives up, and its steps for so much made [g]."""

    id: JobName
    name: str
    saying: str
    gives_up: str
    usual_g: float
    steps: Callable[[float], tuple[RouteStep, ...]]


def job_route(job: Job, mass_g: float) -> tuple[RouteStep, ...]:
    """The steps of a side job.

    Parameters: job; mass_g, how much is made [g].
    Returns: its steps, windows [h], hands [min]. Times are common practice.
    Raises: OutOfRange for a mass outside 1 g to 50 kg.
    """
    return job.steps(within("mass_g", mass_g, 1.0, MOST_MADE_G, "g"))


def _dough(mass_g: float) -> tuple[RouteStep, ...]:
    return (
        RouteStep("mix", "make", "Mix and knead the dough", "Mix, knead until it stretches",
                  "counter", 0.5, 0.5, 0.5, 30),
        RouteStep("dough-rest", "dough-rest", "The dough rests cold", "Into an oiled tub, covered",
                  "fridge", 18.0, 24.0, 48.0, 5),
        RouteStep("shape", "make", "Shape it", "Shape it, onto the tray", "counter",
                  0.25, 0.25, 0.25, 15),
        RouteStep("prove", "prove", "Prove", "Covered, until it springs back slowly", "counter",
                  1.0, 1.5, 2.5),
        RouteStep("bake", "cook", "Bake", "Oven at 220 °C", "oven", 0.5, 0.75, 1.0, 5),
        RouteStep("cool", "cool", "Cool on a rack", "Out of the tin", "counter", 0.5, 1.0, 6.0, 5),
    )  # fmt: skip


def _stock(mass_g: float) -> tuple[RouteStep, ...]:
    return (
        RouteStep("roast-bones", "cook", "Roast the bones", "Oven at 200 °C until brown", "oven",
                  0.75, 0.75, 1.0, 15),
        RouteStep("simmer-stock", "cook", "Simmer overnight", "Cover with cold water, barely "
                  "moving; skim once", "hob", 8.0, 10.0, 14.0, 15),
        RouteStep("cool-stock", "cool", "Strain and cool", "Strain; into an ice bath or 5 cm deep: "
                  "57 to 21 °C within 2 h, to 5 °C within 6 h in all", "counter",
                  0.75, 1.0, 2.0, 30),
        RouteStep("set-stock", "set", "Set cold", "Into the fridge, uncovered until cold",
                  "fridge", 8.0, 12.0, STOCK_KEEPS_H.value, 5),
        RouteStep("reduce", "cook", "Lift the fat, reduce", "Lift the fat off; boil it down by "
                  "half", "hob", 0.75, 1.0, 1.5, 15),
    )  # fmt: skip


def _sauce(mass_g: float) -> tuple[RouteStep, ...]:
    return (
        RouteStep("make-sauce", "make", "Make the sauce", "Cook it; what a raw piece lay in is "
                  "boiled first", "hob", 0.5, 0.5, 1.0, 30),
        RouteStep("sauce-waits", "set", "It waits cold", "Cool it quickly, covered", "fridge",
                  1.0, 12.0, STOCK_KEEPS_H.value, 10),
        RouteStep("warm-sauce", "cook", "Warm it through", "To the boil, once", "hob",
                  0.25, 0.25, 0.5, 5),
    )  # fmt: skip


def _other(mass_g: float) -> tuple[RouteStep, ...]:
    return (
        RouteStep("make", "make", "Make it", "", "counter", 0.5, 0.5, 1.0, 30),
    )  # fmt: skip


JOBS: dict[str, Job] = {
    job.id: job
    for job in (
        Job("dough", "Dough that rests", "rests a day or two in the fridge, then is baked",
            "It gives up fridge room for a day; more than two days and it turns sour.", 1000.0,
            _dough),
        Job("stock", "Stock", "simmers overnight, cools, sets, and is reduced",
            "It gives up the hob for a night, and must be cold within 6 h.", 4000.0, _stock),
        Job("sauce", "Sauce", "made ahead, warmed before it is served",
            "It gives up freshness; a thickened one may split when warmed.", 800.0, _sauce),
        Job("other", "Something else", "one step to begin with; add your own",
            "Nothing is known of it: its times are yours.", 500.0, _other),
    )
}  # fmt: skip
