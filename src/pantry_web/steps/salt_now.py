"""What the core says of a dish in its cure, from its sheet and its log."""

from pantry_core.formats.operations import weigh_out_from
from pantry_core.history.salt_now import Past, past_of, salt_now
from pantry_core.history.tastes import TasteAnswer, WeighIn, answer_to, weighed_in
from pantry_core.mixes.request import WeighRequest
from pantry_core.mixes.weighed import as_it_went_in
from pantry_core.routes.ways import WAYS
from pantry_web.feasts.models import Event, WeighSheet
from pantry_web.feasts.state import log_from
from pantry_web.planning.outlook import Outlook


def salt_context(view: Outlook) -> dict[str, object]:
    """What the piece of a page needs that shows the salt of a dish as it is now."""
    past = past_of_dish(view)
    return {
        "salt": salt_now(past, view.now) if past else None,
        "taste": taste_answer(view, past),
        "weighed": weigh_in(view),
    }


def past_of_dish(view: Outlook) -> Past | None:
    """What the piece went through; None before it is in, or where the model is silent."""
    put_in = view.state.put_in
    if put_in is None:
        return None
    kept = WeighSheet.objects.get(batch=put_in.batch)
    asked, sheet = WeighRequest.model_validate(kept.request), weigh_out_from(kept.answer)
    request = as_it_went_in(asked, kept.weighed)
    if request is None:
        return None
    return past_of(request, sheet.ready, log_from(view.state, view.now), put_in.step_key)


def taste_answer(view: Outlook, past: Past | None) -> TasteAnswer | None:
    """What the last slice asks for: nothing, or a soak so long."""
    tasted = _last(view, Event.What.TASTED)
    if tasted is None or past is None:
        return None
    return answer_to(tasted.taste, past.request.meat, past.stages)  # type: ignore[arg-type]  # the database holds tastes


def weigh_in(view: Outlook) -> WeighIn | None:
    """The last weight since the piece went in against the weight that went in."""
    put_in, weighed = view.state.put_in, _last(view, Event.What.WEIGHED)
    if put_in is None or weighed is None or not put_in.mass_g or not weighed.mass_g:
        return None
    way = WAYS.get(view.dish.cure.get("method", ""))
    return weighed_in(put_in.mass_g, weighed.mass_g, way.group) if way else None


def _last(view: Outlook, what: Event.What) -> Event | None:
    put_in = view.state.put_in
    return next(
        (
            each
            for each in reversed(view.state.events)
            if each.what == what and put_in is not None and each.pk > put_in.pk
        ),
        None,
    )
