"""Ticking the hands-on beginning of a step, the meat going in among them."""

from dataclasses import replace
from datetime import datetime, timedelta
from uuid import UUID, uuid4

from django.db import transaction

from pantry_core.formats.operations import weigh_answer
from pantry_core.mixes.weighed import go_on
from pantry_core.routes.steps import CURING
from pantry_core.rules import RULES_VERSION
from pantry_web.feasts.mixing import House, mix_of, work_out
from pantry_web.feasts.models import Event, Step, WeighSheet
from pantry_web.feasts.planning import Outlook
from pantry_web.feasts.refusal import Refused
from pantry_web.feasts.tasks import is_all_work, next_in_hands
from pantry_web.kitchens.models import Cook

_MEANING: dict[str, Event.What] = {
    "lift": Event.What.LIFTED, **dict.fromkeys(CURING, Event.What.PUT_IN)
}  # fmt: skip


@transaction.atomic
def begin_step(view: Outlook, key: str, by: Cook, house: House) -> None:
    """Record that the hands' work at the beginning of a step is done now.

    What ran before ends with it. A step that is all work ends at once, and a step that needs no
    hands begins by itself after it. With the meat going in, its weigh-out sheet is frozen.

    Parameters: view of the dish at the present moment; key of the step; by whom; house, as for
    `work_out`.
    Raises: Refused when another step is next, or a stop keeps the meat out.
    """
    step = next_in_hands(view)
    if step is None or step.key != key:
        raise Refused("That is not what comes next; look again.")
    batch = uuid4()
    if step.kind in CURING:
        _freeze_sheet(view, house, batch)
    began = _began(view, step)
    log: list[tuple[Event.What, datetime, str]] = []
    if view.state.running is not None:
        log.append((Event.What.STEP_ENDED, began, view.state.running))
    log.append((Event.What.STEP_STARTED, began, key))
    if is_all_work(step):
        log.append((Event.What.STEP_ENDED, view.now, key))
        following = _following(view, step)
        if following is not None and not following.hands_min:
            log.append((Event.What.STEP_STARTED, view.now, following.key))
    if step.kind in _MEANING:
        log.append((_MEANING[step.kind], view.now, key))
    for what, at, step_key in log:
        mass_g = view.dish.mass_g if what == Event.What.PUT_IN else None
        Event.objects.create(
            dish=view.dish, batch=batch, what=what, at=at, by=by, step_key=step_key, mass_g=mass_g
        )


def _began(view: Outlook, step: Step) -> datetime:
    """Now, or for a step that is all work, by so much earlier as the work takes."""
    if not is_all_work(step):
        return view.now
    began = view.now - timedelta(minutes=step.hands_min)
    latest = view.state.latest_fact()
    return max(began, latest) if latest is not None else began


def _following(view: Outlook, step: Step) -> Step | None:
    return next((each for each in view.steps if each.position > step.position), None)


def _freeze_sheet(view: Outlook, house: House, batch: UUID) -> None:
    """Keep the sheet as it goes on from what was really weighed."""
    mixed = work_out(mix_of(view.dish), house)
    out = go_on(mixed.request, view.state.weighed_lines)
    stops = (*mixed.stops, *(each for each in out.notices if each.level == "stop"))
    if stops:
        raise Refused(f"The meat stays out: {stops[0].text}")
    WeighSheet.objects.create(
        dish=view.dish,
        batch=batch,
        rules_version=RULES_VERSION,
        weighed=view.state.weighed_lines,
        request=out.request.model_dump(mode="json"),
        answer=weigh_answer(replace(out.sheet, notices=(*mixed.notices, *out.notices))),
    )
