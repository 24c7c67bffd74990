"""A cook's calendars: their secret addresses, and what a calendar is answered that asks by one."""

from django.contrib import messages
from django.contrib.auth.decorators import login_not_required
from django.core.cache import cache
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.urls import reverse
from django.utils.translation import gettext
from django.views.decorators.http import require_POST

from pantry_web import clock
from pantry_web.feasts.models import Feast
from pantry_web.feeds.actions.renew_feed import digest_of, end_feed, renew_feed
from pantry_web.feeds.models import Feed
from pantry_web.kitchens.access import cook_of, kitchen_of
from pantry_web.kitchens.models import Kitchen
from pantry_web.passage.calendars import calendar_answer
from pantry_web.planning.hands import feast_tasks
from pantry_web.planning.looking import feast_outlooks
from pantry_web.today.agenda import JUST
from pantry_web.today.views import MOST_FEASTS

MOST_ASKED, WINDOW_S = 20, 60
"""So often an address is answered in a minute; a calendar asks once an hour or so."""
FRESH_S = 300


def feeds(request: HttpRequest) -> HttpResponse:
    """The calendars of a cook: of all feasts, and of each that lies ahead."""
    return _page(request, kitchen_of(request))


@require_POST
def renew(request: HttpRequest) -> HttpResponse:
    """Make an address, or another one in its place; it is told this once."""
    kitchen = kitchen_of(request)
    feast = _feast(request, kitchen)
    token = renew_feed(kitchen, cook_of(request), feast, clock.real())
    return _page(request, kitchen, told=request.build_absolute_uri(reverse("feed", args=[token])))


@require_POST
def end(request: HttpRequest) -> HttpResponse:
    """End an address."""
    kitchen = kitchen_of(request)
    end_feed(kitchen, cook_of(request), _feast(request, kitchen), clock.real())
    messages.success(request, gettext("That address tells nobody anything any more."))
    return redirect("feeds")


@login_not_required
def feed(request: HttpRequest, token: str) -> HttpResponse:
    """The calendar of an address: whoever knows it reads what lies ahead, and nothing else."""
    digest = digest_of(token)
    key = f"feed-{digest[:32]}-{clock.real().timestamp() // WINDOW_S:.0f}"
    cache.add(key, 0, 2 * WINDOW_S)
    if cache.incr(key) > MOST_ASKED:
        return HttpResponse(status=429)
    found = Feed.objects.filter(token_digest=digest, ended_at=None)
    asked = get_object_or_404(found.select_related("kitchen", "feast"))
    if not asked.kitchen.memberships.filter(cook=asked.cook_id).exists():
        raise Http404
    kitchen, now = asked.kitchen, clock.now(asked.kitchen)
    ahead = kitchen.feasts.filter(serve_at__gt=now - JUST)
    if asked.feast_id is not None:
        ahead = ahead.filter(pk=asked.feast_id)
    wholes = feast_outlooks(list(ahead[:MOST_FEASTS]), kitchen, now)
    views = [view for whole in wholes for view in whole.dishes if not view.dish.is_given_up]
    name = asked.feast.name if asked.feast else kitchen.name
    due = [each for whole in wholes for each in feast_tasks(whole)]
    answer = calendar_answer(name, "feed", now, views, due)
    answer["Cache-Control"] = f"private, max-age={FRESH_S}"
    return answer


def _feast(request: HttpRequest, kitchen: Kitchen) -> Feast | None:
    """The feast that is asked for; None for all of them."""
    typed = request.POST.get("feast", "")
    if not typed:
        return None
    is_number = typed.isascii() and typed.isdigit() and len(typed) < 10
    return get_object_or_404(kitchen.feasts, pk=int(typed) if is_number else 0)


def _page(request: HttpRequest, kitchen: Kitchen, told: str = "") -> HttpResponse:
    now = clock.now(kitchen)
    mine = Feed.objects.filter(kitchen=kitchen, cook=cook_of(request), ended_at=None)
    made = {each.feast_id: each for each in mine}
    ahead = kitchen.feasts.filter(serve_at__gt=now - JUST)[:MOST_FEASTS]
    rows = [(None, made.get(None)), *((feast, made.get(feast.pk)) for feast in ahead)]
    return render(request, "feeds/feeds.html", {"rows": rows, "told": told})
