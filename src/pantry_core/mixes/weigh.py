"""From a request to a weigh-out sheet: the masses first, then every figure from the masses."""

from pantry_core.mixes.cautions import cautions
from pantry_core.mixes.judged import Judged, judge_mix
from pantry_core.mixes.mix import Mix, mixed
from pantry_core.mixes.readiness import readiness
from pantry_core.mixes.request import WeighRequest
from pantry_core.mixes.result import Line, WeighOut


def weigh(request: WeighRequest) -> WeighOut:
    """Work out what to weigh, how salty it gets, and its nitrite against the limit.

    Parameters: request; its fields carry their units and ranges, checked when it was made.
    Returns: the sheet; masses [g], shares [%], nitrite [mg/kg], times [d], inside temperature [°C],
    not rounded. Going over a limit, salt that does not dissolve, and days beyond the raw clock are
    notices of level stop. `ready` is None where no salt is aimed at, where the model does not
    reach, and where the piece may not be kept raw so long.
    Raises: nothing for a request that could be made.
    Source: mass balance (derived); counts of FSIS Directive 7620.3 (from memory); time by the
    model of the salt's way.

    >>> from pantry_core.meat import Meat
    >>> sheet = weigh(WeighRequest(
    ...     profile="us", method="dry-cure", target_salt_pct=2.5, cure={"name": "cure-1"},
    ...     meat=Meat(kind="pork", mass_g=1000.0, thickness_mm=50.8, shape="slab")))
    >>> [(line.name, round(line.grams, 2)) for line in sheet.lines]
    [('salt', 22.75), ('curing-salt', 2.4)]
    """
    return sheet_of(judged_of(request))


def judged_of(request: WeighRequest) -> Judged:
    """What a request comes to, its masses solved.

    Parameters and errors as in `weigh`.
    """
    mix = mixed(request)
    cures = () if request.cure is None else ((request.cure, mix.curing_salt),)
    return judge_mix(request, mix, cures, readiness(request, mix))


def sheet_of(judged: Judged) -> WeighOut:
    """The weigh-out sheet of what a request comes to."""
    lines = _lines(judged.mix)
    return WeighOut(
        lines=lines,
        pickle=judged.pickle,
        salt=judged.salt,
        nitrite=judged.nitrite,
        nitrate=judged.nitrate,
        needle_g=judged.needle_g,
        ready=judged.ready,
        notices=cautions(judged, lines),
        inside_c=judged.inside.value if judged.inside else None,
    )


def _lines(mix: Mix) -> tuple[Line, ...]:
    lines = (
        Line("water", mix.water),
        Line("salt", mix.plain_salt),
        Line("curing-salt", mix.curing_salt),
        Line("sugar", mix.sugar),
        *(Line(each.name, each.mass_g) for each in mix.sauces),
    )
    return tuple(each for each in lines if each.grams > 0)
