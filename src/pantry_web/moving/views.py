"""A kitchen out as a file, and in again."""

import json

from django.contrib import messages
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.utils.text import slugify
from django.utils.translation import gettext
from django.utils.translation import gettext_lazy as _
from django.views.decorators.http import require_POST

from pantry_core.formats.reading import WrongInput
from pantry_web import clock
from pantry_web.feasts.access import feast_of
from pantry_web.forms import FileForm
from pantry_web.kitchens.access import (
    choose_kitchen,
    cook_of,
    kitchen_of,
    membership_of,
    owned_kitchen_of,
)
from pantry_web.kitchens.models import Membership
from pantry_web.moving.actions import rehearse as rehearsals
from pantry_web.moving.actions.bring_in_kitchen import bring_in_kitchen
from pantry_web.moving.read_in import read_kitchen
from pantry_web.moving.taken_out import kitchen_document
from pantry_web.refusal import Refused
from pantry_web.sentences import tell

MOST_TOLD = 12


class KitchenFileForm(FileForm):
    """A kitchen as a file."""

    most_bytes, too_big = 80_000_000, _("That is over 80 megabytes; a kitchen is smaller.")


def files(request: HttpRequest) -> HttpResponse:
    """All that can be taken out and brought in."""
    is_owner = membership_of(request).role == Membership.Role.OWNER
    return render(request, "moving/files.html", {"is_owner": is_owner})


def take_out(request: HttpRequest) -> HttpResponse:
    """The whole kitchen as a JSON document."""
    kitchen = owned_kitchen_of(request)
    text = json.dumps(kitchen_document(kitchen), ensure_ascii=False, indent=1)
    response = HttpResponse(f"{text}\n", content_type="application/json")
    name = slugify(kitchen.name) or "kitchen"
    response["Content-Disposition"] = f'attachment; filename="{name}-kitchen.json"'
    return response


def bring_in(request: HttpRequest) -> HttpResponse:
    """A kitchen from its document, beside those that the cook has."""
    form = KitchenFileForm(request.POST or None, request.FILES or None)
    if request.method == "POST" and form.is_valid():
        try:
            read = read_kitchen(form.cleaned_data["document"], clock.real())
            kitchen = bring_in_kitchen(read, cook_of(request))
        except WrongInput as wrong:
            for each in wrong.problems[:MOST_TOLD]:
                form.add_error("document", f"{each.where or 'the file'}: {each.what}.")
        except Refused as refused:
            form.add_error("document", str(refused))
        else:
            choose_kitchen(request, kitchen)
            messages.success(
                request,
                tell("{kitchen} is in, and you cook there now.", kitchen=kitchen.name),
            )
            return redirect("feasts")
    status = 422 if form.is_bound else 200
    return render(request, "moving/bring_in.html", {"form": form}, status=status)


@require_POST
def rehearse(request: HttpRequest, feast_id: int) -> HttpResponse:
    """Rehearse a feast, in a copy of its kitchen that leaves no trace."""
    kitchen = kitchen_of(request)
    if kitchen.rehearses_id is not None:
        raise Http404
    feast = feast_of(request, feast_id)
    try:
        copy, rehearsed = rehearsals.rehearse(feast, cook_of(request), clock.now(kitchen))
    except Refused as refused:
        messages.error(request, str(refused))
        return redirect("feast", feast_id)
    choose_kitchen(request, copy)
    messages.success(
        request,
        gettext(
            "This is a rehearsal: its clock runs, and nothing that you do here stays. Set the "
            "clock, or end it, under Kitchen."
        ),
    )
    return redirect("feast", rehearsed.pk)


@require_POST
def end_rehearsal(request: HttpRequest) -> HttpResponse:
    """End a rehearsal: all of it is removed, and one cooks at home again."""
    kitchen = kitchen_of(request)
    if kitchen.rehearses is None:
        return redirect("feasts")
    home = kitchen.rehearses
    rehearsals.end_rehearsal(kitchen)
    choose_kitchen(request, home)
    messages.success(request, gettext("The rehearsal is over, and nothing of it is left."))
    return redirect("feasts")
