"""Devices: what they post, and the page on which they are added, used and ended."""

import json
from datetime import timedelta

from django.contrib import messages
from django.contrib.auth.decorators import login_not_required
from django.core.cache import cache
from django.http import HttpRequest, HttpResponse, JsonResponse, QueryDict
from django.http.request import RawPostDataException
from django.shortcuts import get_object_or_404, redirect, render
from django.utils.translation import gettext
from django.views.decorators.csrf import csrf_exempt
from django.views.decorators.http import require_POST

from pantry_web import clock
from pantry_web.devices.actions.add_device import add_device, digest_of, revoke_device
from pantry_web.devices.actions.check_thermometer import check_thermometer
from pantry_web.devices.actions.take_readings import take_readings
from pantry_web.devices.actions.tell_the_log import tell_the_log
from pantry_web.devices.actions.use_channel import use_channel
from pantry_web.devices.forms import ChannelForm, DeviceForm, ThermometerForm
from pantry_web.devices.models import Channel, Device
from pantry_web.devices.posted import read_post
from pantry_web.feasts.models import Dish
from pantry_web.kitchens.access import cook_of, kitchen_of, membership_of, owned_kitchen_of
from pantry_web.kitchens.models import Kitchen, Membership
from pantry_web.quantities import typed_mass

MOST_BODY = 100_000
MOST_POSTS = 20
"""So many posts of a device are taken in each ten seconds; it gathers what is more."""
WINDOW_S = 10
SCALE_FRESH = timedelta(seconds=30)
CHECKS_SHOWN = 8
LOOKS_AHEAD = timedelta(days=7)


@csrf_exempt  # a device has no form: its token alone speaks for it, and no browser sends that
@login_not_required
@require_POST
def readings(request: HttpRequest) -> HttpResponse:
    """Take readings from a device, by its token."""
    token = request.headers.get("Authorization", "").removeprefix("Bearer ").strip()
    digest = digest_of(token)
    if not _has_turn(digest):
        return _refused(429, "Too many posts: gather readings, and send them every few seconds.")
    body = _body(request)
    if len(body) > MOST_BODY:
        return _refused(413, "Too much at once: send at most 500 readings.")
    found = Device.objects.filter(token_digest=digest, revoked_at=None)
    device = found.select_related("kitchen", "added_by").first()
    if device is None:
        return _refused(401, "This token opens nothing; it may have been revoked.")
    try:
        raw = json.loads(body)
    except (ValueError, RecursionError):
        return _refused(422, "That is no JSON.")
    now = clock.now(device.kitchen)
    told, problems = read_post(raw, now)
    if problems:
        errors = [{"where": each.where, "what": str(each.what)} for each in problems]
        return JsonResponse({"errors": errors}, status=422)
    out, to_tell = take_readings(device, told, now)
    for channel, sample in to_tell:
        tell_the_log(channel, sample, now)
    left_out = [
        {"channel": number, "celsius": each.sample.celsius, "code": each.code, "why": each.why}
        for number, channel in out.items()
        for each in channel
    ]
    return JsonResponse({"now": now.isoformat(), "left_out": left_out})


def _body(request: HttpRequest) -> bytes:
    """What was posted; nothing of a form, which has been read as one by now."""
    try:
        return request.body
    except RawPostDataException:
        return b""


def _has_turn(digest: str) -> bool:
    """Whether a device has not posted too often; whoever guesses tokens is slowed as well."""
    key = f"device-{digest[:32]}-{clock.real().timestamp() // WINDOW_S:.0f}"
    cache.add(key, 0, 2 * WINDOW_S)
    return cache.incr(key) <= MOST_POSTS


def _refused(status: int, what: str) -> JsonResponse:
    return JsonResponse({"errors": [{"where": "", "what": what}]}, status=status)


def devices(request: HttpRequest) -> HttpResponse:
    """The devices of a kitchen; a new one's token is told once."""
    kitchen = kitchen_of(request)
    form = DeviceForm(request.POST or None, units=kitchen.units)
    token = ""
    if request.method == "POST":
        kitchen = owned_kitchen_of(request)
        if form.is_valid():
            name, now = form.cleaned_data["name"], clock.real()
            _, token = add_device(kitchen, cook_of(request), name, now)
            form = DeviceForm(units=kitchen.units)
    return _page(request, kitchen, form, token=token)


def _page(
    request: HttpRequest,
    kitchen: Kitchen,
    form: DeviceForm,
    *,
    token: str = "",
    refused: tuple[Channel, ChannelForm] | None = None,
    check: ThermometerForm | None = None,
) -> HttpResponse:
    dishes = _dishes(kitchen)
    rows = [
        (device, [(channel, _form(channel, kitchen, dishes, refused))
                  for channel in device.channels.all()])
        for device in kitchen.devices.filter(revoked_at=None).prefetch_related("channels__dish")
    ]  # fmt: skip
    context = {
        "rows": rows, "form": form, "token": token,
        "check": check or _check_form(kitchen),
        "checks": kitchen.thermometer_checks.select_related("by")[:CHECKS_SHOWN],
        "is_owner": membership_of(request).role == Membership.Role.OWNER,
        "refused": refused[0] if refused else None,
        "address": request.build_absolute_uri("/devices/readings/"),
    }  # fmt: skip
    bound = [form, *([check] if check else [])]
    is_wrong = refused is not None or any(each.is_bound and each.errors for each in bound)
    return render(request, "devices/devices.html", context, status=422 if is_wrong else 200)


def _check_form(kitchen: Kitchen, typed: QueryDict | None = None) -> ThermometerForm:
    last = kitchen.thermometer_checks.first()
    wires = Channel.objects.filter(
        device__kitchen=kitchen, device__revoked_at=None,
        what__in=(Channel.What.MEAT, Channel.What.FIRE, Channel.What.FRIDGE),
    )  # fmt: skip
    return ThermometerForm(
        typed, wires=list(wires.select_related("device")), units=kitchen.units,
        height_m=last.height_m if last else 0.0, auto_id="check_%s",
    )  # fmt: skip


@require_POST
def check(request: HttpRequest) -> HttpResponse:
    """Keep what a thermometer showed in ice and in boiling water."""
    kitchen = kitchen_of(request)
    form = _check_form(kitchen, request.POST)
    if not form.is_valid():
        return _page(request, kitchen, DeviceForm(units=kitchen.units), check=form)
    kept = check_thermometer(kitchen, cook_of(request), clock.now(kitchen), **form.shown)
    messages.success(request, kept.found.said)
    return redirect("devices")


def _dishes(kitchen: Kitchen) -> list[Dish]:
    """Dishes that a probe may be in: those of the feasts that are near."""
    now = clock.now(kitchen)
    near = (now - LOOKS_AHEAD / 7, now + LOOKS_AHEAD)
    found = Dish.objects.filter(
        feast__kitchen=kitchen, feast__removed_at=None, feast__serve_at__range=near,
        is_given_up=False,
    )  # fmt: skip
    return list(found[:60])


def _form(
    channel: Channel,
    kitchen: Kitchen,
    dishes: list[Dish],
    refused: tuple[Channel, ChannelForm] | None,
) -> ChannelForm:
    if refused is not None and refused[0] == channel:
        return refused[1]
    offered = [*dishes, *([channel.dish] if channel.dish and channel.dish not in dishes else [])]
    initial = {
        "what": channel.what, "dish": str(channel.dish_id or ""), "low": channel.low_c,
        "high": channel.high_c,
    }  # fmt: skip
    auto_id = f"channel_{channel.pk}_%s"
    return ChannelForm(initial=initial, dishes=offered, units=kitchen.units, auto_id=auto_id)


def on_the_scale(request: HttpRequest) -> HttpResponse:
    """What lies on the scale of the kitchen now; nothing where none has told for a while."""
    kitchen = kitchen_of(request)
    since = clock.now(kitchen) - SCALE_FRESH
    found = Channel.objects.filter(
        device__kitchen=kitchen, device__revoked_at=None, what=Channel.What.SCALE,
        weighed_at__gte=since,
    )  # fmt: skip
    channel = found.order_by("-weighed_at").first()
    if channel is None or channel.grams is None:
        return HttpResponse(status=204)
    said = typed_mass(channel.grams, kitchen.units)
    return JsonResponse({"said": said, "is_steady": channel.is_steady})


@require_POST
def set_channel(request: HttpRequest, channel_id: int) -> HttpResponse:
    """Say what a channel is in."""
    kitchen = kitchen_of(request)
    found = Channel.objects.filter(device__kitchen=kitchen, device__revoked_at=None)
    channel = get_object_or_404(found, pk=channel_id)
    form = ChannelForm(
        request.POST, dishes=_dishes(kitchen), units=kitchen.units,
        auto_id=f"channel_{channel.pk}_%s",
    )  # fmt: skip
    if not form.is_valid():
        return _page(request, kitchen, DeviceForm(units=kitchen.units), refused=(channel, form))
    typed = form.cleaned_data
    dish = form.dishes.get(typed["dish"])
    use_channel(channel, typed["what"], dish, typed["low"], typed["high"])
    messages.success(request, gettext("Saved."))
    return redirect("devices")


@require_POST
def revoke(request: HttpRequest, device_id: int) -> HttpResponse:
    """End what a device may do."""
    device = get_object_or_404(owned_kitchen_of(request).devices, pk=device_id)
    revoke_device(device, clock.real())
    return redirect("devices")
