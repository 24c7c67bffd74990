"""What must be said of curing salt: its kind, its count, its scale, its handling."""

from collections.abc import Iterator, Sequence

from pantry_core.meat import NEVER_CURED
from pantry_core.mixes.judged import Judged
from pantry_core.mixes.request import Cure, WeighRequest
from pantry_core.mixes.result import Line
from pantry_core.mixes.standing import CURING_SALT
from pantry_core.notice import Notice, notice
from pantry_core.quantities import Division, Grams, Number, Percent, Ppm
from pantry_core.rules.constants import SCALE_DOUBT
from pantry_core.rules.cures import (
    LABEL_MOST,
    NITRATE_IN_CURE_2,
    NITRITE_SALT_LEAST,
    NITRITE_SALT_MOST,
)
from pantry_core.rules.profiles import BACON_ASCORBATE_PPM
from pantry_core.rules.rule import Mark, Source
from pantry_core.text import Text, say

_FISH_CURE = Source("21 CFR 172.175 allows it for few kinds", Mark.MEMORY)
_PRACTICE = Source("", Mark.PRACTICE)
_LABEL = Source("the label", Mark.PRACTICE)


def curing_salts(judged: Judged) -> Iterator[Notice]:
    """All that its curing salts want said; what is given up without."""
    if not judged.cures:
        yield from uncured(judged.request)
        return
    told: set[str] = set()
    for cure, _ in judged.cures:
        for each in (*_kind_of_cure(cure, judged), *_nitrate_of(cure, judged)):
            if each.code not in told:
                told.add(each.code)
                yield each
    yield from _counts(judged)
    yield from _nitrate_count(judged)
    is_pumped_bacon = judged.request.needle is not None and judged.request.meat.will_be == "bacon"
    if is_pumped_bacon and judged.request.profile == "us":
        text = say(
            "For pumped bacon the rule asks for {bacon_ascorbate_ppm} of sodium ascorbate "
            "or erythorbate beside the nitrite, so that less nitrosamine forms when it is "
            "fried.",
            bacon_ascorbate_ppm=Ppm(BACON_ASCORBATE_PPM.value),
        )
        yield notice("caution", "bacon-ascorbate", text, BACON_ASCORBATE_PPM)


def uncured(request: WeighRequest) -> Iterator[Notice]:
    """What is given up without curing salt, where people want a piece pink: never of a roast."""
    if request.seasons:
        return
    if request.meat.kind == "fish":
        text = "Fish has no curing salt: only salt and cold protect it."
        yield notice("note", "uncured", text, _PRACTICE)
    elif request.meat.kind not in NEVER_CURED:
        yield notice(
            "note",
            "uncured",
            "Without curing salt the meat turns grey, and only cold protects it: for a "
            "fridge cure that is then boiled or roasted, not for long cool smoking.",
            _PRACTICE,
        )


def _kind_of_cure(cure: Cure, judged: Judged) -> Iterator[Notice]:
    """What its name and its label say, and what it must not be put on."""
    kind = judged.request.meat.kind
    if kind == "fish":
        text = "No curing salt for fish: salt alone, and cold."
        yield notice("stop", "curing-salt-fish", text, _FISH_CURE)
    if kind == "vegetable":
        text = "No curing salt for vegetables: plain salt does it."
        yield notice("stop", "curing-salt-vegetable", text, _PRACTICE)
    if judged.request.heaped:
        text = (
            "No curing salt in a heap that is washed off: nobody knows how much stays in. A "
            "measured, bagged dry cure may have it."
        )
        yield notice("stop", "curing-salt-heaped", text, _PRACTICE)
    yield from _strength(cure)
    if cure.name == "celery":
        yield from _celery(cure, judged)
    yield CURING_SALT


def _strength(cure: Cure) -> Iterator[Notice]:
    share = cure.nitrite_share
    if share is not None and share > LABEL_MOST.value:
        yield notice(
            "stop",
            "strength-too-high",
            say(
                "{share} nitrite is no curing salt for a kitchen; {label_most} is the most. "
                "Read the label again.",
                share=Percent(100 * share),
                label_most=Percent(100 * LABEL_MOST.value),
            ),
            LABEL_MOST,
        )
    if cure.name != "nitrite-salt":
        return
    if share is None:
        yield notice(
            "stop",
            "strength-unlabelled",
            "A nitrite salt without its strength cannot be weighed out. Take the percentage from "
            "the label; use 0.4 to 0.9.",
            NITRITE_SALT_MOST,
        )
    elif not NITRITE_SALT_LEAST.value <= share <= NITRITE_SALT_MOST.value:
        yield notice(
            "caution",
            "strength-unusual",
            say(
                "Nitrite salts hold 0.4 to 0.9 % of nitrite; {share} is unusual. Read the "
                "label again.",
                share=Percent(100 * share),
            ),
            NITRITE_SALT_MOST,
        )


def _celery(cure: Cure, judged: Judged) -> Iterator[Notice]:
    if cure.is_unknown:
        yield notice(
            "caution",
            "celery-unknown",
            say(
                "Celery powder is a plant source of the same nitrite. Its label states no strength "
                "of nitrite, so nothing can be promised of it and no upper limit is proven: reckon "
                "it as uncured. {no_1_instead}",
                no_1_instead=_no_1_instead(judged),
            ),
            _LABEL,
        )
    else:
        yield notice(
            "note",
            "celery",
            "Celery powder is a plant source of the same nitrite. It is no salt: only what its "
            "label says is counted.",
            _LABEL,
        )


def _no_1_instead(judged: Judged) -> str:
    return say(
        "Curing salt no. 1 sized to {usual} does surely what this cannot promise.",
        usual=Ppm(judged.limits.usual.value),
    )


def _nitrate_of(cure: Cure, judged: Judged) -> Iterator[Notice]:
    if cure.nitrate_share == 0:
        return
    if judged.request.meat.will_be == "bacon":
        text = "No nitrate in bacon: nitrite alone, as in curing salt no. 1."
        yield notice("stop", "nitrate-bacon", text, judged.most_nitrate)
    if cure.name == "saltpetre":
        yield notice(
            "caution",
            "saltpetre",
            say(
                "Saltpetre is nitrate: bacteria and time must turn it into nitrite, and in a fridge"
                " nobody can say how much. {no_1_instead}",
                no_1_instead=_no_1_instead(judged),
            ),
            Source("potassium nitrate is no nitrite", Mark.DEFINED),
        )
    elif cure.name != "celery":
        yield notice(
            "caution",
            "nitrate-in-fridge-cure",
            "Its nitrate is for long dry curing. In a fridge cure that is cooked hot it does "
            "nothing in time; use a curing salt without nitrate.",
            NITRATE_IN_CURE_2,
        )


def _counts(judged: Judged) -> Iterator[Notice]:
    """Whether the nitrite is too much or too little."""
    nitrite, limits = judged.nitrite, judged.limits
    if nitrite.verdict == "over":
        ppm = nitrite.counts.governing
        how = ""
        if nitrite.needle_ppm is not None and ppm != nitrite.even_ppm and nitrite.pickup_ppm:
            how = " by needle and brine together"
        is_least = any(cure.is_unknown for cure, _ in judged.cures)
        text = say(
            "{ppm} of nitrite would go in{how}; {limit_ppm} is the most. Take less "
            "curing salt; {usual} is usual.",
            ppm=say("At least {ppm}", ppm=Ppm(ppm, 1)) if is_least else Ppm(ppm, 1),
            how=how,
            limit_ppm=Ppm(nitrite.limit_ppm),
            usual=Ppm(limits.usual.value),
        )
        yield notice("stop", "nitrite-over", text, limits.most)
    if nitrite.verdict not in ("low", "none"):
        return
    if all(cure.name == "saltpetre" for cure, _ in judged.cures):
        return
    taken = nitrite.taken_up_ppm or 0.0
    lifted = " until it is lifted" if judged.request.method == "strong-brine" else ""
    text = say(
        "{taken} of nitrite{lifted} may be too little to cure or protect; {enough} is "
        "enough. From about 40 the meat still turns pink; only the longest keeping is "
        "denied.",
        taken=Ppm(taken, 1),
        lifted=lifted,
        enough=Ppm(limits.enough.value),
    )
    yield notice("caution", "nitrite-low", text, limits.enough)


def _nitrate_count(judged: Judged) -> Iterator[Notice]:
    """Whether the nitrate is too much, in plain words when it is enormous."""
    nitrate, most = judged.nitrate, judged.most_nitrate
    if nitrate.verdict != "over":
        return
    if most.value == 0:
        text = say(
            "{ppm} of nitrate would go in, and none may be in this. Take a curing salt "
            "that holds nitrite only.",
            ppm=Ppm(nitrate.ppm, 0),
        )
    else:
        times = nitrate.ppm / most.value
        said = say(": {times} times as much", times=Number(times, 0)) if times >= 2 else ""
        text = say(
            "{ppm} of nitrate would go in; {most} is the most{said}. Take less of it, or none.",
            ppm=Ppm(nitrate.ppm, 0),
            most=Ppm(most.value),
            said=said,
        )
    yield notice("stop", "nitrate-over", text, most)


def scale(judged: Judged, lines: Sequence[Line]) -> Iterator[Notice]:
    """What a scale that reads to so many grams leaves in doubt."""
    division_g = judged.request.scale_division_g
    if division_g is None:
        return
    for line in lines:
        if line.name == "water" or line.grams == 0:
            continue
        doubt = division_g / line.grams
        if line.name == "curing-salt":
            yield from _cure_scale(judged, doubt)
        elif doubt > SCALE_DOUBT.value:
            yield notice(
                "caution",
                "scale-doubt",
                _doubted(line, division_g),
                SCALE_DOUBT,
            )


def _doubted(line: Line, division_g: float) -> Text:
    """What a scale makes of a line; below one of its steps it shows nothing of it."""
    division, grams = Division(division_g), Grams(line.grams, 1 if line.grams >= 1.0 else 2)
    if line.grams < division_g:
        return say(
            "{grams} of {line} is less than the {division} that your scale shows. Use a finer one.",
            grams=grams, line=line.name, division=division,
        )  # fmt: skip
    return say(
        "Your {division} scale can be {doubt} out on {grams} of {line}. Use a finer one.",
        division=division, doubt=Percent(100 * division_g / line.grams, 0), grams=grams,
        line=line.name,
    )  # fmt: skip


def _cure_scale(judged: Judged, doubt: float) -> Iterator[Notice]:
    nitrite, nitrate = judged.nitrite, judged.nitrate
    for what, verdict, ppm, most in (
        ("nitrite", nitrite.verdict, nitrite.governing_ppm, judged.limits.most),
        ("nitrate", nitrate.verdict, nitrate.ppm, judged.most_nitrate),
    ):
        with_doubt = (ppm or 0.0) * (1.0 + doubt)
        if verdict not in ("over", "none") and round(with_doubt, 1) > most.value:
            yield notice(
                "stop",
                "scale-doubt-over",
                say(
                    "With the doubt of this scale it could be {with_doubt} of {what}; {most} is "
                    "the most. Use a finer scale or ask for less.",
                    with_doubt=Ppm(with_doubt, 0),
                    what=what,
                    most=Ppm(most.value),
                ),
                most,
            )
    if doubt > SCALE_DOUBT.value:
        solution = (
            say(
                " Or dissolve {10 g} of curing salt in {90 g} of the water, the same day, and "
                "weigh ten times as much of that; its water comes off the water."
            )
            if judged.mix.water > 0
            else ""
        )
        yield notice(
            "caution",
            "scale-doubt",
            say(
                "This scale doubts the curing salt by {doubt}. Use a finer one.{solution}",
                doubt=Percent(100 * doubt, 0),
                solution=solution,
            ),
            SCALE_DOUBT,
        )
