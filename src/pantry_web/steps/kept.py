"""What lies in the freezer, and goes into a stock or a sauce by one press."""

from django.contrib import messages
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import redirect
from django.views.decorators.http import require_POST

from pantry_web.ledger.models import Leftover
from pantry_web.planning.looking import outlook_of
from pantry_web.planning.outlook import Outlook
from pantry_web.refusal import Refused
from pantry_web.sentences import tell
from pantry_web.steps.actions.use_left import use_left

TAKES_BONES = ("stock", "sauce", "reduction")
"""Side jobs that take what is kept for a stock."""


def in_the_freezer(view: Outlook) -> list[Leftover]:
    """What is kept and would go into a stock or a sauce."""
    name = view.dish.document.get("job", {}).get("name")
    if name not in TAKES_BONES or view.state.begun:
        return []
    kept = Leftover.objects.filter(
        dish__feast__kitchen=view.kitchen, dish__feast__removed_at=None, fate="",
        place=Leftover.Place.FREEZER,
    )  # fmt: skip
    return [each for each in kept.select_related("dish") if each.is_for_stock]


@require_POST
def use_kept(request: HttpRequest, job_id: int, leftover_id: int) -> HttpResponse:
    """Put what lies in the freezer into a side job."""
    view = outlook_of(request, job_id)
    left = next((each for each in in_the_freezer(view) if each.pk == leftover_id), None)
    if left is None:
        raise Http404
    try:
        use_left(view.dish, left, view.now)
    except Refused as refused:
        messages.error(request, str(refused))
    else:
        messages.success(request, tell("{left} goes into it.", left=left.name))
    return redirect("job-mix", job_id)
