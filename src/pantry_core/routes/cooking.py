"""The steps at the heat, from the counter to the table."""

from collections.abc import Iterator
from dataclasses import dataclass, replace

from pantry_core.heat.inside import is_intact
from pantry_core.heat.smoke import judge_smoke
from pantry_core.mixes.judged import Judged
from pantry_core.notice import Notice
from pantry_core.routes.customs import COOK_SPREAD, KEEP_WARM_H, TEMPER_H, Customs
from pantry_core.routes.cuts import Cut
from pantry_core.routes.heats import SMOKED, VEGETABLES, Heat, Stage
from pantry_core.routes.step import RouteStep, Until
from pantry_core.rules.inside import SMOKED_FISH_MIN, TENDER_HIGH, TENDER_LOW


@dataclass(frozen=True, slots=True)
class Cooking:
    """How the piece is cooked: the way, its weight by piece [g], vegetables in the pot."""

    heat: Heat
    piece_g: float
    vegetables: bool = False


def stages_of(cut: Cut, cooking: Cooking, customs: Customs) -> tuple[Stage, ...]:
    """The stages of its cooking; none for fish eaten raw."""
    if cut.kind == "fish" and customs.is_raw:
        return ()
    stages = cooking.heat.stages_for(cut.kind)
    if cooking.vegetables and stages and stages[0].place == "hob":
        first = replace(stages[0], hours=stages[0].hours - VEGETABLES.hours / 2)
        return (first, VEGETABLES, *stages[1:])
    return stages


def tempered(stages: tuple[Stage, ...], customs: Customs) -> Iterator[RouteStep]:
    """The chill taken off before the oven, where the cook does so."""
    if customs.tempering == "hour" and any(stage.place == "oven" for stage in stages[:1]):
        most = TEMPER_H.value
        yield RouteStep(
            "temper", "temper", "Take the chill off", "Out of the fridge, covered; two hours at "
            "the most", "counter", 1.0, 1.0, most, 5,
        )  # fmt: skip


def smoke_notices(
    cut: Cut, stages: tuple[Stage, ...], cooking: Cooking, judged: Judged
) -> Iterator[Notice]:
    """What the time between cold and hot in the smoker means; fish goes by its own line."""
    if stages is not SMOKED or cut.kind == "fish":
        return
    warming_h = sum(
        each.to_54_c * (each.hours + each.hours_per_kg * cooking.piece_g / 1000.0)
        for each in stages
    )
    yield from judge_smoke(
        warming_h,
        min(each.air_c for each in stages if each.air_c is not None),
        is_cured=judged.nitrite.verdict == "ok",
        is_intact=is_intact(judged.request.treatments),
    )


def _done(cut: Cut, heat: Heat, judged: Judged) -> str:
    """When it is done, in words."""
    inside = judged.inside
    if inside is None:
        return " Done"
    if cut.is_tender and heat.is_tender:
        return (
            f" Tender when a skewer slides in, somewhere from {TENDER_LOW.value:g} to "
            f"{TENDER_HIGH.value:g} °C inside, never below {inside.value:g}"
        )
    held = ""
    if judged.request.meat.is_kept_smoked:
        held = f", held there for {SMOKED_FISH_MIN.value:g} min"
    return f" Done at {inside.value:g} °C inside{held}"


def _until(cut: Cut, heat: Heat, judged: Judged) -> Until:
    """What the last stage goes on until."""
    if cut.is_tender and heat.is_tender:
        return {"tender": True}
    return {"inside_c": judged.inside.value} if judged.inside else {"look": True}


def cooked(
    cut: Cut, stages: tuple[Stage, ...], cooking: Cooking, judged: Judged
) -> Iterator[RouteStep]:
    """The stages, the last one planned to the late end of its spread."""
    done, kilos = _done(cut, cooking.heat, judged), cooking.piece_g / 1000.0
    for stage in stages:
        hours = stage.hours + stage.hours_per_kg * kilos
        how = stage.how
        if stage is stages[-1]:
            late = (1.0 + COOK_SPREAD.value) * hours
            how += f"{done}, perhaps after {_clock(hours)}: then hold it at 60 °C or above."
            hours = late
        yield RouteStep(
            stage.id, "cook", stage.title, how, stage.place,
            hours, hours, hours + 0.5, stage.hands_min,
            until=_until(cut, cooking.heat, judged) if stage is stages[-1] else None,
        )  # fmt: skip


def _clock(hours: float) -> str:
    minutes = 5 * round(12 * hours)
    return f"{minutes // 60} h {minutes % 60:02d}" if minutes >= 60 else f"{minutes} min"


def served(cut: Cut, stages: tuple[Stage, ...]) -> Iterator[RouteStep]:
    """From the heat to the table."""
    if stages:
        yield RouteStep(
            "stand", "stand", "Rest before carving", "Take it out, loosely covered",
            "counter", 0.5, 0.5, 0.75, 5,
        )  # fmt: skip
        yield RouteStep(
            "keep-warm", "keep-warm", "Keep warm", "", "counter", 0.0, 0.0, KEEP_WARM_H.value
        )
    title = "Carve" if cut.kind != "vegetable" else "Dish up"
    how = "Carve across the grain" if cut.kind != "vegetable" else "Onto the table"
    yield RouteStep("carve", "carve", title, how, "counter", 0.25, 0.25, 0.25, 15)
