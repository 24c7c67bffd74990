"""What fish that is eaten raw, smoked or kept must have: frost, salt and heat."""

from collections.abc import Iterator

from pantry_core.history.stays import Stay
from pantry_core.judging.case import Case
from pantry_core.notice import Notice, notice
from pantry_core.quantities import Celsius, Percent
from pantry_core.rules.heat import COLD_SMOKE_MOST_C
from pantry_core.rules.inside import KILLS_PARASITES_C
from pantry_core.rules.parasites import FROZEN, FROZEN_DEEP, Frozen
from pantry_core.rules.raw_clock import PARTLY_PPM
from pantry_core.rules.rule import Mark, Rule, Source
from pantry_core.rules.smoke import AIR_SALT_PCT, VACUUM_SALT_PCT
from pantry_core.text import Sentence, joined, say

_PRACTICE = Source("", Mark.PRACTICE)
NOT_FOR = say("Pregnant, over 65, under 5 or of weak immunity: no raw-cured fish.")


def in_smoke(case: Case) -> list[Stay]:
    """The stays in the smoker."""
    return [each for each in case.history.stays if each.medium == "smoker"]


def in_cold_smoke(case: Case) -> list[Stay]:
    """The stays in smoke that heats nothing."""
    return [each for each in in_smoke(case) if each.around_c <= COLD_SMOKE_MOST_C.value]


def parasites(case: Case) -> Iterator[Notice]:
    """Fish that is not cooked through was frozen for long and cold enough, or is exempt."""
    if case.meat.kind != "fish" or _is_cooked_through(case):
        return
    how, basis = FROZEN[case.request.profile].words, FROZEN[case.request.profile].basis
    text = say(
        "Fish eaten raw is frozen against parasites first: {how}, where the freezer's own "
        "thermometer shows it; {−18 °C} does not do. Farmed kinds that are exempt need it not.",
        how=how,
    )
    if not case.is_eaten_raw:
        text = say(
            "Below {cooked} fish counts as raw for parasites. {text}",
            cooked=Celsius(KILLS_PARASITES_C.value),
            text=text,
        )
    if is_frozen_enough(case):
        yield _said(text, "Its stay in the freezer is cold and long enough.", basis)
    elif case.is_said_frozen:
        yield _said(text, "By your word this one is.", basis)
    else:
        yield notice("stop", "parasites", text, basis)


def _said(text: Sentence, how: Sentence, basis: Rule | Source) -> Notice:
    return notice("caution", "parasites", joined(" ", (text, how, NOT_FOR)), basis)


def _is_cooked_through(case: Case) -> bool:
    """Whether heat kills what is in it; what is neither heated nor eaten raw has its own stop."""
    heated = case.history.heated
    if case.is_eaten_raw or not heated:
        return not case.is_eaten_raw
    return max(each.hottest.low for each in heated) >= KILLS_PARASITES_C.value


def is_frozen_enough(case: Case) -> bool:
    """Whether one stay in the cold kills parasites by the rules of the profile."""
    ways: tuple[Frozen, ...] = (FROZEN[case.request.profile], FROZEN_DEEP)
    return any(
        each.state == "frozen" and each.around_c <= way.celsius.value
        and each.hours >= way.hours.value - 1e-6
        for each in case.history.stays
        for way in ways
    )  # fmt: skip


def least_water_phase_pct(case: Case, hour: float) -> float:
    """Salt in the water of the least salty point at an hour from purchase [% of the water]."""
    stay = next((each for each in case.history.stays if each.to_h >= hour), None)
    least = stay.salt.least if stay else 0.0
    in_water = least / 100.0 / case.meat.water_g_g
    return 100.0 * in_water / (1.0 + in_water)


def salted_enough(case: Case) -> Iterator[Notice]:
    """Smoked fish that is kept, or smoked cold, has salt enough at its least salty point."""
    meat, smoke = case.meat, in_smoke(case)
    is_kept = meat.storage != "meal" and (bool(smoke) or meat.will_be == "smoked")
    if meat.kind != "fish" or not (is_kept or in_cold_smoke(case)):
        return
    limit = AIR_SALT_PCT
    if meat.storage == "vacuum":
        limit = VACUUM_SALT_PCT
    begins = smoke[0].from_h if smoke else case.history.hours
    comes_to = least_water_phase_pct(case, begins)
    if round(comes_to, 2) < limit.value:
        text = say(
            "At its least salty point the water in it comes to {comes_to} salt; {what} needs "
            "{least}. More salt, more time or a longer rest; or eat it hot at the same meal.",
            comes_to=Percent(comes_to, 1),
            what="smoked fish that is kept" if is_kept else "cold-smoked fish",
            least=Percent(limit.value),
        )
        yield notice("stop", "water-phase-low", text, limit)


def cold_smoked(case: Case) -> Iterator[Notice]:
    """Meat in cold smoke has nitrite through to its heart; nothing else may lie in it."""
    cold = in_cold_smoke(case)
    if not cold or case.meat.kind in ("fish", "vegetable"):
        return
    if cold[0].nitrite_ppm.least < PARTLY_PPM.value or case.judged.nitrite.verdict != "ok":
        text = (
            "Cold smoke is for meat with nitrite through to its centre that is cooked later: take "
            "curing salt and its time, or smoke it hot."
        )
        yield notice("stop", "cold-smoke", text, COLD_SMOKE_MOST_C)


def smoke_not_cold(case: Case) -> Iterator[Notice]:
    """Fish that is eaten raw lies in smoke that is cold."""
    warm_c = max((each.around_c for each in in_smoke(case)), default=0.0)
    if case.is_eaten_raw and warm_c > COLD_SMOKE_MOST_C.value:
        text = say(
            "Smoke at {smoke_c} is not cold: {cold_smoke_most_c} is the most.",
            smoke_c=Celsius(warm_c),
            cold_smoke_most_c=Celsius(COLD_SMOKE_MOST_C.value),
        )
        yield notice("stop", "cold-smoke", text, COLD_SMOKE_MOST_C)
