"""The cook's changes of the steps, applied to whatever the dish becomes."""

from collections.abc import Sequence
from dataclasses import replace
from typing import Any

from pantry_core.dish.answer import DishStep
from pantry_core.dish.request import MOST_STEPS, Edit
from pantry_core.errors import OutOfRange
from pantry_core.notice import Notice, notice
from pantry_core.quantities import Number
from pantry_core.rules.rule import Mark, Source
from pantry_core.text import say

_OWN_WORD = Source("the cook's own word", Mark.PRACTICE)
FIELDS = (
    "kind", "title", "text", "tend", "until", "place", "min_h", "prefer_h", "max_h", "hands_min",
    "attended", "uses", "every_h", "locked_start", "trip", "after", "medium", "medium_c", "covered",
    "form", "count", "thickness_mm",
)  # fmt: skip


OF_THE_PIECE = ("medium", "medium_c", "covered", "form", "count", "thickness_mm")
"""What older steps did not say: nothing is changed by that."""


def edited(
    steps: Sequence[DishStep], edits: Sequence[Edit]
) -> tuple[tuple[DishStep, ...], tuple[Notice, ...]]:
    """Apply edits to steps.

    Parameters: steps as the route has them; edits, each of another step.
    Returns: the steps as changed, and a caution for every edit of a step that is not there.
    Raises: OutOfRange for more than 240 steps.
    """
    by_step = {each.step: each for each in edits if not each.own}
    known = {step.id for step in steps}
    found = [
        _changed(step, by_step[step.id]) if step.id in by_step else step
        for step in steps
        if not (step.id in by_step and by_step[step.id].removed)
    ]
    told = [_not_there(each) for name, each in by_step.items() if name not in known]
    for own in (each for each in edits if each.own and not each.removed):
        ids = [step.id for step in found]
        if own.before is not None and own.before not in ids:
            told.append(_no_place(own))
        at = ids.index(own.before) if own.before in ids else len(found)
        found.insert(at, _own(own))
    if len(found) > MOST_STEPS:
        raise OutOfRange(
            "steps of a dish",
            len(found),
            say("{most_steps} at most", most_steps=Number(MOST_STEPS)),
        )
    return tuple(found), tuple(told)


def edits_between(steps: Sequence[DishStep], wanted: Sequence[DishStep]) -> tuple[Edit, ...]:
    """The edits that make other steps of these.

    Parameters: steps as the route has them; wanted, the steps that are to be.
    Returns: a removal of each that is not wanted, the fields in which one differs, and every other
    as an own step before the one it precedes. The order of the route stays.
    Raises: pydantic.ValidationError for fields outside the ranges of a step.
    """
    by_id, ids = {each.id: each for each in steps}, [each.id for each in wanted]
    removed = [Edit(step=each.id, removed=True) for each in steps if each.id not in ids]
    changed = [
        Edit(step=each.id, **fields)
        for each in wanted
        if each.id in by_id and (fields := _differing(by_id[each.id], each))
    ]
    own = [
        Edit(step=each.id, own=True, before=ids[i + 1] if i + 1 < len(ids) else None,
             **_differing(None, each))
        for i, each in enumerate(wanted)
        if each.id not in by_id
    ]  # fmt: skip
    return (*removed, *changed, *reversed(own))


def _differing(before: DishStep | None, after: DishStep) -> dict[str, Any]:
    values = {name: getattr(after, name) for name in FIELDS}
    if before is None:
        return {name: value for name, value in values.items() if value is not None}
    return {
        name: value
        for name, value in values.items()
        if value != getattr(before, name) and (value or name not in OF_THE_PIECE)
    }


def _changed(step: DishStep, edit: Edit) -> DishStep:
    """The step with the fields that the cook set; a window that no longer holds widens."""
    given = {name: getattr(edit, name) for name in FIELDS if name in edit.model_fields_set}
    if "after" in given:
        given["after"] = given["after"] or ()
    changed = replace(step, **given)
    least = changed.min_h
    most = changed.max_h
    if most is not None and most < least:
        least, most = (most, most) if "max_h" in given else (least, least)
    prefer = changed.prefer_h
    if prefer is not None:
        prefer = max(prefer, least)
        prefer = prefer if most is None else min(prefer, most)
    return replace(changed, min_h=least, prefer_h=prefer, max_h=most)


def _own(edit: Edit) -> DishStep:
    least = edit.min_h or 0.0
    return DishStep(
        id=edit.step,
        kind=edit.kind or "own",
        title=edit.title or edit.step,
        text=edit.text or "",
        place=edit.place,
        min_h=least,
        prefer_h=edit.prefer_h,
        max_h=edit.max_h,
        hands_min=edit.hands_min or 0.0,
        attended=bool(edit.attended),
        uses=1.0 if edit.uses is None else edit.uses,
        every_h=edit.every_h,
        tend=edit.tend or "",
        until=edit.until,
        locked_start=edit.locked_start,
        trip=edit.trip,
        after=edit.after or (),
        medium=edit.medium,
        medium_c=edit.medium_c,
        covered=bool(edit.covered),
        form=edit.form,
        count=edit.count,
        thickness_mm=edit.thickness_mm,
    )


def _not_there(edit: Edit) -> Notice:
    name = edit.title or edit.step
    text = say(
        "The change of the step “{name}” no longer applies: the dish has no such step now.",
        name=name,
    )
    return notice("caution", "edit-without-step", text, _OWN_WORD)


def _no_place(edit: Edit) -> Notice:
    text = say(
        "The own step “{step}” was to stand before “{before}”, which is not there now: it"
        " stands at the end.",
        step=edit.title or edit.step,
        before=edit.before or "",
    )
    return notice("caution", "edit-without-step", text, _OWN_WORD)
