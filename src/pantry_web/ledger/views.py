"""The ledger: every dish ever made, found again, told of, compared, and what is learnt of it."""

from typing import Any

from django.contrib import messages
from django.core.paginator import Paginator
from django.db.models import Q, QuerySet
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.utils.translation import gettext
from django.views.decorators.http import require_POST

from pantry_web import clock
from pantry_web.drawings.ledger import SIZES, beside
from pantry_web.feasts.choices import cuts_cooked
from pantry_web.feasts.models import Dish
from pantry_web.kitchens.access import cook_of, kitchen_of
from pantry_web.kitchens.models import Kitchen
from pantry_web.ledger.actions.end_leftover import end_leftover, take_back_end
from pantry_web.ledger.actions.keep_photo import keep_photo, remove_photo
from pantry_web.ledger.actions.learn import forget, learn_of_the_brought_in, put_aside
from pantry_web.ledger.actions.take_proposal import take_proposal
from pantry_web.ledger.actions.tell_review import skip_review, tell_review
from pantry_web.ledger.evidence import NAMES, figures_of
from pantry_web.ledger.forms import LookForm, PhotoForm, ReviewForm, typed_of
from pantry_web.ledger.models import Leftover, Photo, Review
from pantry_web.ledger.next_time import last_time_of, proposals
from pantry_web.ledger.past import differences, past_of, sheets_of, spans_of
from pantry_web.planning.looking import feast_outlook_of, outlook_of
from pantry_web.planning.rows import dish_rows
from pantry_web.refusal import Refused
from pantry_web.sentences import tell as tell_of
from pantry_web.steps.salt_now import salt_context

A_PAGE = 25


def ledger(request: HttpRequest) -> HttpResponse:
    """Every dish that is over, the latest first, found by words, cut and method."""
    kitchen = kitchen_of(request)
    learn_of_the_brought_in(kitchen)
    found = _over(kitchen)
    form = LookForm(request.GET)
    if form.is_valid():
        found = _found(found, form.cleaned_data)
    # They are looked through once, to count and to show them.
    keys = list(found.values_list("pk", flat=True))
    page = Paginator(keys, A_PAGE).get_page(request.GET.get("page"))
    asked = request.GET.copy()
    asked.pop("page", None)
    context = {
        "form": form,
        "is_narrow": any(request.GET.get(name) for name in form.fields if name != "q"),
        "page": page,
        "dishes": _over(kitchen).filter(pk__in=list(page)),
        "asked": asked.urlencode(),
        "figures": figures_of(kitchen),
        "leftovers": Leftover.objects.filter(dish__feast__kitchen=kitchen, fate="").select_related(
            "dish__feast"
        ),
        "fates": Leftover.Fate.choices,
        "thrown": Leftover.objects.filter(
            dish__feast__kitchen=kitchen, fate=Leftover.Fate.THROWN
        ).count(),
    }
    return render(request, "ledger/ledger.html", context)


def _over(kitchen: Kitchen) -> QuerySet[Dish]:
    """Dishes of a kitchen whose feast is over, and of feasts that nobody has removed."""
    now = clock.now(kitchen)
    dishes = Dish.objects.filter(
        feast__kitchen=kitchen, feast__removed_at=None, feast__serve_at__lte=now, is_given_up=False
    )
    return dishes.select_related("feast", "review").order_by("-feast__serve_at", "pk")


def _found(dishes: QuerySet[Dish], asked: dict[str, Any]) -> QuerySet[Dish]:
    where = {
        "cut": "document__piece__cut", "method": "document__cure__method",
        "feast": "feast__name__icontains",
    }  # fmt: skip
    dishes = dishes.filter(**{where[name]: asked[name] for name in where if asked[name]})
    if way := asked["way"]:
        usual = Q(document__heat__way__isnull=True, document__piece__cut__in=cuts_cooked(way))
        dishes = dishes.filter(Q(document__heat__way=way) | usual)
    for word in asked["q"].split()[:6]:
        dishes = dishes.filter(
            Q(name__icontains=word)
            | Q(feast__name__icontains=word)
            | Q(note__icontains=word)
            | Q(review__next_time__icontains=word)
        )
    return dishes


def dish_page(request: HttpRequest, dish_id: int) -> HttpResponse:
    """What was planned of a dish and what happened, what it weighed, what came of it."""
    view = outlook_of(request, dish_id)
    spans = spans_of(view)
    others = _over(view.kitchen).exclude(pk=dish_id)[:100]
    context = {
        "outlook": view,
        "dish": view.dish,
        "feast": view.dish.feast,
        "past": past_of(view),
        "sheets": sheets_of(view.dish),
        "pictures": [beside(spans, size) for size in SIZES] if spans else (),
        "review": _review_of(view.dish),
        "others": others,
        "photos": view.dish.photos.defer("jpeg"),
        "is_over": view.now >= (view.dish.serve_at or view.dish.feast.serve_at),
        **salt_context(view),
    }
    return render(request, "ledger/dish.html", context)


def afterwards(request: HttpRequest, feast_id: int) -> HttpResponse:
    """What came of a feast: each dish, what is left of it and how long it keeps, the notes."""
    whole = feast_outlook_of(request, feast_id)
    reviews = {each.dish_id: each for each in Review.objects.filter(dish__feast=whole.feast)}
    left = Leftover.objects.filter(dish__feast=whole.feast, fate="").select_related("dish__feast")
    rows = [row for row in dish_rows(whole) if not row.view.dish.is_given_up]
    context = {
        "feast": whole.feast,
        "rows": [(row, reviews.get(row.view.dish.pk)) for row in rows],
        "leftovers": left,
        "fates": Leftover.Fate.choices,
        "is_over": whole.now >= whole.feast.serve_at,
        "has_last_time": any(last_time_of(row.view.dish) for row in rows),
    }
    return render(request, "ledger/afterwards.html", context)


def tell(request: HttpRequest, dish_id: int) -> HttpResponse:
    """Tell what came of a dish, now or later."""
    view, by = outlook_of(request, dish_id), cook_of(request)
    form = ReviewForm(
        request.POST or None, units=view.kitchen.units, dish=view.dish,
        initial=typed_of(_review_of(view.dish)),
    )  # fmt: skip
    if form.is_bound and form.is_valid():
        try:
            tell_review(view, by, form.told)
        except Refused as refused:
            form.add_error(None, str(refused))
        else:
            return redirect("ledger-dish", dish_id)
    status = 422 if form.is_bound else 200
    context = {"form": form, "dish": view.dish, "feast": view.dish.feast}
    return render(request, "ledger/tell.html", context, status=status)


@require_POST
def skip(request: HttpRequest, dish_id: int) -> HttpResponse:
    """Tell nothing of a dish."""
    skip_review(outlook_of(request, dish_id), cook_of(request))
    return redirect("today")


def compare(request: HttpRequest) -> HttpResponse:
    """Two dishes side by side, what differs marked."""
    keys = [request.GET.get(name, "") for name in ("a", "b")]
    if not all(key.isdecimal() and len(key) < 10 for key in keys):
        return ledger(request)
    one, other = (outlook_of(request, int(key)) for key in keys)
    rows = differences(
        past_of(one), past_of(other), _review_of(one.dish), _review_of(other.dish), one.kitchen
    )
    return render(request, "ledger/compare.html", {"both": (one, other), "rows": rows})


def last_time(request: HttpRequest, feast_id: int) -> HttpResponse:
    """What came of the dishes of a feast the last time, and what it asks to be changed."""
    whole = feast_outlook_of(request, feast_id)
    told = [(view, last_time_of(view.dish)) for view in whole.dishes]
    starts = [each.start for each in whole.plan.steps] if whole.plan else []
    context = {
        "feast": whole.feast,
        "whole": whole,
        "begins": min(starts, default=None),
        "dishes": [(view, review, proposals(view, review)) for view, review in told if review],
        "figures": [each for each in figures_of(whole.kitchen) if not each.is_aside],
    }
    return render(request, "ledger/last_time.html", context)


@require_POST
def take(request: HttpRequest, dish_id: int, code: str) -> HttpResponse:
    """Make a change that the last time asks for."""
    view = outlook_of(request, dish_id)
    try:
        messages.success(request, tell_of("Done: {text}", text=take_proposal(view, code)))
    except Refused as refused:
        messages.error(request, str(refused))
    return redirect("last-time", view.dish.feast_id)


@require_POST
def add_photo(request: HttpRequest, dish_id: int) -> HttpResponse:
    """Keep a photo of a dish."""
    view, by = outlook_of(request, dish_id), cook_of(request)
    form = PhotoForm(request.POST, request.FILES)
    if not form.is_valid():
        messages.error(request, gettext("Choose a photo first; use one of up to 16 MB."))
        return redirect("ledger-dish", dish_id)
    try:
        keep_photo(view, by, form.cleaned_data["document"])
    except Refused as refused:
        messages.error(request, str(refused))
    return redirect("ledger-dish", dish_id)


def photo(request: HttpRequest, photo_id: int) -> HttpResponse:
    """A photo, for the cooks of its kitchen alone."""
    found = _photo(request, photo_id)
    return HttpResponse(bytes(found.jpeg), content_type="image/jpeg")


@require_POST
def drop_photo(request: HttpRequest, photo_id: int) -> HttpResponse:
    """Remove a photo."""
    found = _photo(request, photo_id)
    dish_id = found.dish_id
    remove_photo(found)
    return redirect("ledger-dish", dish_id)


def _photo(request: HttpRequest, photo_id: int) -> Photo:
    return get_object_or_404(Photo, pk=photo_id, dish__feast__kitchen=kitchen_of(request))


@require_POST
def set_figure(request: HttpRequest, figure: str, deed: str) -> HttpResponse:
    """Put a figure of the kitchen aside, use it again, or learn it anew."""
    kitchen = kitchen_of(request)
    if figure not in NAMES or deed not in ("aside", "use", "forget"):
        raise Http404
    if deed == "forget":
        forget(kitchen, figure, clock.now(kitchen))
    else:
        put_aside(kitchen, figure, is_aside=deed == "aside")
    return redirect("ledger")


@require_POST
def left_over(request: HttpRequest, leftover_id: int, fate: str) -> HttpResponse:
    """What became of what was left; or it is there after all."""
    kitchen = kitchen_of(request)
    leftover = get_object_or_404(Leftover, pk=leftover_id, dish__feast__kitchen=kitchen)
    if fate == "back":
        take_back_end(leftover)
    elif fate in Leftover.Fate.values:
        end_leftover(leftover, fate, clock.now(kitchen))
        messages.success(request, leftover.get_fate_display().capitalize())
    else:
        raise Http404
    return redirect("today" if request.POST.get("back") == "today" else "ledger")


def _review_of(dish: Dish) -> Review | None:
    return Review.objects.filter(dish=dish).first()
