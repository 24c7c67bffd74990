"""Ticking the hands-on beginning of a step, the meat going in among them."""

from dataclasses import replace
from datetime import datetime, timedelta
from uuid import UUID, uuid4

from django.utils.translation import gettext
from pydantic import ValidationError

from pantry_core.dish.answer import DishStep
from pantry_core.dish.weighed_out import gone_on
from pantry_core.formats.operations import kept_sheet
from pantry_core.mixes.request import WeighRequest
from pantry_core.notice import Notice
from pantry_core.routes.steps import CURING
from pantry_core.rules import RULES_VERSION
from pantry_web.feasts.actions.log.as_seen import as_seen
from pantry_web.feasts.models import Event, WeighSheet
from pantry_web.kitchens.models import Cook
from pantry_web.planning.hands import asked_of, is_all_work, waits_for
from pantry_web.planning.outlook import Outlook
from pantry_web.refusal import Refused
from pantry_web.sentences import tell

_MEANING: dict[str, Event.What] = {
    "lift": Event.What.LIFTED, **dict.fromkeys(CURING, Event.What.PUT_IN)
}  # fmt: skip


def begin_step(view: Outlook, key: str, by: Cook, *, is_sure: bool = False) -> None:
    """Record that the hands' work at the beginning of a step is done now.

    What ran before ends with it. A step that is all work ends at once, and a step that needs no
    hands begins by itself after it. With the meat going in, its weigh-out sheet is frozen.

    Parameters: view of the dish at the present moment; key of the step; by whom; is_sure, whether
    the cook has said that what runs is over, soon as it seems.
    Raises: Refused when another step is next, a stop holds it back, it waits for a temperature or a
    touch, or what runs began a moment ago; Stale when something was written down since.
    """
    step = view.next_in_hands
    if step is None or step.id != key:
        raise Refused(gettext("That is not what comes next; look again."))
    _refuse_too_soon(view, key, is_sure=is_sure)
    batch = uuid4()
    sheet = _sheet(view, batch) if step.kind in CURING else None
    began = _began(view, step)
    log: list[tuple[Event.What, datetime, str]] = []
    if view.state.running is not None:
        log.append((Event.What.STEP_ENDED, began, view.state.running))
    log.append((Event.What.STEP_STARTED, began, key))
    if is_all_work(step):
        log.append((Event.What.STEP_ENDED, view.now, key))
        following = _following(view, step)
        if following is not None and not following.hands_min:
            log.append((Event.What.STEP_STARTED, view.now, following.id))
    if step.kind in _MEANING:
        log.append((_MEANING[step.kind], view.now, key))
    with as_seen(view):
        if sheet is not None:
            sheet.save()
        for what, at, step_key in log:
            mass_g = view.dish.mass_g if what == Event.What.PUT_IN else None
            Event.objects.create(
                dish=view.dish, batch=batch, what=what, at=at, by=by, step_key=step_key,
                mass_g=mass_g,
            )  # fmt: skip


def _refuse_too_soon(view: Outlook, key: str, *, is_sure: bool) -> None:
    """Refuse what a stop or a gate holds back, and what the cook has not said to be over."""
    for stop in view.withheld(key):
        raise Refused(
            tell("Not yet: {stop} {lift}", stop=stop.text, lift=stop.lift.text if stop.lift else "")
        )
    waits = waits_for(view, key)
    if waits is not None:
        raise Refused(waits)
    question = asked_of(view)
    if question is not None and not is_sure:
        raise Refused(tell("{question} If so, tick it again and say so.", question=question))


def _began(view: Outlook, step: DishStep) -> datetime:
    """Now, or for a step that is all work, by so much earlier as the work takes."""
    if not is_all_work(step):
        return view.now
    began = view.now - timedelta(minutes=step.hands_min)
    latest = view.state.latest_fact()
    return max(began, latest) if latest is not None else began


def _following(view: Outlook, step: DishStep) -> DishStep | None:
    after = view.steps[view.place_of(step.id) + 1 :]
    return after[0] if after else None


def _sheet(view: Outlook, batch: UUID) -> WeighSheet:
    """The sheet as it goes on from what was really weighed.

    Raises: Refused when what was weighed may not go in.
    """
    answer = view.answer
    out = None if answer is None else gone_on(answer, view.state.weighed_lines)
    if answer is None or out is None:
        raise Refused(gettext("The sheet cannot be worked out; look at its mix."))
    stops = [each for each in out.notices if each.level == "stop"]
    if stops:
        raise Refused(tell("The meat stays out: {text}", text=stops[0].text))
    asked = out.request.model_dump(mode="json")
    try:
        WeighRequest.model_validate(asked)
    except ValidationError:
        raise Refused(
            gettext("This recipe makes no brine: write its water, or choose a dry method.")
        ) from None
    said = tuple(Notice(e.level, e.code, e.text, e.basis) for e in answer.notices)
    return WeighSheet(
        dish=view.dish,
        batch=batch,
        rules_version=RULES_VERSION,
        weighed=view.state.weighed_lines,
        request=asked,
        answer=kept_sheet(replace(out.sheet, notices=(*said, *out.notices))),
    )
