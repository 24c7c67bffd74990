"""What could be changed of a recipe that is checked by itself, without a dish."""

from dataclasses import dataclass, replace

from pydantic import ValidationError

from pantry_core.dish.proposals import Change, Said, candidates_of
from pantry_core.dish.recipe_asked import RecipeAsked, RecipeLineAsked
from pantry_core.dish.written import Written, WrittenLine
from pantry_core.mixes.check import CheckOut, as_asked, check_of, judged_recipe
from pantry_core.mixes.judged import Judged
from pantry_core.mixes.recipe import CheckRequest, RecipeLine
from pantry_core.mixes.request import Purpose, WeighRequest
from pantry_core.mixes.result import Figures, Proposal
from pantry_core.mixes.uptake import after_days


@dataclass(frozen=True, slots=True)
class Checked:
    """A recipe as it is checked: what it comes to, and for how long."""

    judged: Judged
    request: WeighRequest
    purpose: Purpose
    in_h: float


def check_with_offers(request: CheckRequest) -> CheckOut:
    """The answer of `check`, with what could be changed of the recipe.

    Parameters: request; its fields carry their units and ranges.
    Returns: the answer; each proposal is worked out by itself, lifts a stop or a caution and brings
    no new one.
    Raises: nothing for a request that could be made.
    Source: as of `check`.
    """
    out, now, subject = _worked_out(request)
    before = Said(out.notices)
    offers = []
    for each in candidates_of(subject, _written(request), now, subject.in_h or None, before.codes):
        changes = tuple(_of_a_check(change) for change in each.changes)
        try:
            other, after, _ = _worked_out(_changed(request, changes))
        except ValidationError:
            continue
        lifts = before.lifted_by(Said(other.notices))
        if lifts:
            offers.append(Proposal(each.code, each.text, changes, now, after, lifts))
    return replace(out, proposals=tuple(offers))


def _worked_out(request: CheckRequest) -> tuple[CheckOut, Figures, Checked]:
    judged = judged_recipe(request, as_asked(request))
    out = check_of(request, judged)
    end = after_days(judged.request, judged.mix)
    ppm = out.nitrite.governing_ppm
    now = Figures(None, None, None, ppm)
    if end is not None:
        now = Figures(end.mean_pct, end.outer_pct, end.heart_pct, ppm)
    elif judged.mix.salt > 0:
        now = Figures(out.salt.in_meat_pct, out.salt.in_meat_pct, None, ppm)
    purpose = request.purpose or ("season" if judged.request.seasons else "through")
    in_h = 24.0 * (request.days or 0.0)
    return out, now, Checked(judged, judged.request, purpose, in_h)


def _written(request: CheckRequest) -> Written:
    """The lines of the check as those of a recipe for this piece."""
    asked = tuple(
        RecipeLineAsked.model_construct(name=line.name, amount=line.amount, unit=line.unit)
        for line in request.lines
    )
    lines = tuple(
        WrittenLine(at, one, line.amount, line.grams, None, line.grams)
        for at, (one, line) in enumerate(zip(asked, request.lines, strict=True))
    )
    recipe = RecipeAsked.model_construct(lines=asked, used_share=request.used_share)
    return Written(recipe, lines, request, tuple(range(len(lines))))


def _of_a_check(change: Change) -> Change:
    """A change as the document of `check` has it."""
    if "field" in change:
        return {**change, "field": str(change["field"]).removeprefix("cure.")}
    if "add" in change:
        added = change["add"]
        assert isinstance(added, dict)  # noqa: S101 - a line is added
        return {"add": {name: added[name] for name in ("name", "amount", "unit")}}
    if "grams" in change:
        return {"line": change["line"], "amount": change["grams"], "unit": "g"}
    return change


def _changed(request: CheckRequest, changes: tuple[Change, ...]) -> CheckRequest:
    lines = [line.model_dump(exclude_none=True) for line in request.lines]
    days: object = request.days
    for each in changes:
        if "add" in each:
            lines.append(each["add"])  # type: ignore[arg-type]  # a line as its document has it
        elif "line" in each:
            rest = {name: value for name, value in each.items() if name != "line"}
            lines[int(str(each["line"]))] |= rest
        else:
            days = each["value"]
    read = tuple(RecipeLine.model_validate(line) for line in lines)
    return request.model_copy(update={"lines": read, "days": days})
