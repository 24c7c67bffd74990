"""Taking readings in: sifted, kept once, thinned behind, told to the log where they matter."""

from collections.abc import Iterable, Sequence
from datetime import UTC, datetime, timedelta
from functools import lru_cache

from django.db import connection

from pantry_core.readings.sift import LeftOut, Sample, Sieve
from pantry_core.readings.thin import TOLERANCE_C, one_a_minute, thinned
from pantry_core.readings.watch import watched
from pantry_core.rules.constants import FRIDGE_STOP_C
from pantry_web.devices.models import Channel, Device, Reading
from pantry_web.feasts.models import Mishap
from pantry_web.presses.once import once

LONGEST = timedelta(hours=30)
"""So far back a curve is drawn."""
WHOLE, MEAN_OVER_MIN = timedelta(minutes=35), 10
EACH = """
SELECT channel_id, round((julianday(at) - 2440587.5) * 86400.0, 2), celsius
FROM {table} WHERE channel_id IN ({ids}) AND at >= %s AND at < %s ORDER BY channel_id, at
"""
MEANS = """
SELECT channel_id, (julianday(min(at)) + julianday(max(at)) - 4881175.0) * 43200.0, avg(celsius)
FROM {table} WHERE channel_id IN ({ids}) AND at >= %s AND at < %s
GROUP BY channel_id, substr(at, 1, 15) ORDER BY channel_id, min(at)
"""
"""The first fifteen signs of a moment are its ten minutes."""
END_OF_TIME = "9999-12-31 00:00:00"
RAW, MINUTES = timedelta(minutes=6), timedelta(minutes=20)
"""So long every reading is kept as it came, and so long one of each minute."""
REFUSED = ("fahrenheit", "jump", "range")
"""Why a reading is left out that was read now."""
STEADY_G, STEADY_SHARE = 0.3, 0.002
"""Two weights that are no further apart are the same (our own choice)."""
EVERY = timedelta(minutes=5)
"""So often the log is told, and older readings are thinned."""


@once()
def take_readings(
    device: Device, told: dict[int, list[Sample]], now: datetime
) -> tuple[dict[int, list[LeftOut]], list[tuple[Channel, Sample]]]:
    """Keep what a device read.

    Parameters: device; told, readings by the number of their channel; now.
    Returns: what is left out, by channel; and what the log of a dish is to be told: every five
    minutes what a probe shows, and at once when the goal is reached.
    """
    found = {}
    to_tell: list[tuple[Channel, Sample]] = []
    for channel in device.channels.filter(number__in=told).select_related("dish__feast", "mishap"):
        if channel.what == Channel.What.UNUSED:
            continue
        if channel.what == Channel.What.SCALE:
            _weigh(channel, told[channel.number])
            continue
        out, shown = _take(channel, _put_right(channel, told[channel.number]), now)
        found[channel.number] = out
        if shown is not None:
            to_tell.append((channel, shown))
    device.seen_at = now
    device.save(update_fields=["seen_at"])
    return found, to_tell


def _put_right(channel: Channel, samples: Sequence[Sample]) -> list[Sample]:
    """Readings as they are by the last check of the thermometer."""
    check = channel.checks.first()
    if check is None:
        return list(samples)
    found = check.found
    return [Sample(each.at_s, found.put_right(each.celsius)) for each in samples]


def _take(
    channel: Channel, samples: Sequence[Sample], now: datetime
) -> tuple[list[LeftOut], Sample | None]:
    """Keep readings; what is left out, and what the log of its dish is to be told."""
    first = min(each.at_s for each in samples)
    known = channel.readings.filter(at__gte=_at(first)).values_list("at", flat=True)
    last = channel.readings.last()
    sieve = Sieve(
        channel.what,  # type: ignore[arg-type]  # the database holds these
        None if last is None else Sample(last.at.timestamp(), last.celsius),
        [Sample(*each) for each in channel.waiting],
        {each.timestamp() for each in known} | {at for at, _ in channel.waiting},
    )
    kept, out = sieve.sift(samples, now.timestamp())
    Reading.objects.bulk_create(
        (Reading(channel=channel, at=_at(each.at_s), celsius=each.celsius) for each in kept),
        ignore_conflicts=True,
    )
    channel.waiting = [[each.at_s, each.celsius] for each in sieve.waiting]
    for each in out:
        channel.left_out[each.code] = channel.left_out.get(each.code, 0) + 1
    if sieve.waiting or any(each.code in REFUSED for each in out):
        channel.refused_at = now
    shown = max(kept) if kept and channel.what == Channel.What.MEAT else None
    if shown is not None and not _is_due(channel, last, shown, now):
        shown = None
    if kept and channel.what == Channel.What.FRIDGE:
        _tell_of_warmth(channel, now)
    if channel.thinned_at is None or now - channel.thinned_at >= EVERY:
        _thin(channel, now)
        channel.thinned_at = now
    channel.save()
    return out, shown


def _is_due(channel: Channel, before: Reading | None, sample: Sample, now: datetime) -> bool:
    """Whether the log of its dish is to be told."""
    goal_c = channel.goal_c
    has_arrived = (
        goal_c is not None and before is not None and before.celsius < goal_c <= sample.celsius
    )
    is_time = channel.written_at is None or now - channel.written_at >= EVERY
    return channel.dish is not None and (is_time or has_arrived)


def _weigh(channel: Channel, samples: Sequence[Sample]) -> None:
    """What lies on a scale; it is at rest once two weights agree."""
    for sample in sorted(samples):
        before, channel.grams = channel.grams, sample.celsius
        off = max(STEADY_G, STEADY_SHARE * abs(channel.grams))
        channel.is_steady = before is not None and abs(channel.grams - before) <= off
        channel.weighed_at = _at(sample.at_s)
    channel.save(update_fields=["grams", "is_steady", "weighed_at"])


def _tell_of_warmth(channel: Channel, now: datetime) -> None:
    """A fridge that stays too warm is a mishap: it begins, goes on and ends with the readings."""
    recent = samples_of(channel, now - MINUTES)
    is_warm = (
        "warm"
        in watched("fridge", recent, now.timestamp(), band_c=(-5.0, FRIDGE_STOP_C.value)).troubles
    )
    mishap = channel.mishap
    if mishap is not None:
        latest = recent[-1]
        if latest.celsius > FRIDGE_STOP_C.value:
            mishap.ends = _at(latest.at_s)
            mishap.temperature_c = max(mishap.temperature_c or 0.0, latest.celsius)
            mishap.save(update_fields=["ends", "temperature_c"])
        else:
            channel.mishap = None
    elif is_warm:
        warm = [each for each in recent if each.celsius > FRIDGE_STOP_C.value]
        channel.mishap = Mishap.objects.create(
            kitchen=channel.device.kitchen, kind=Mishap.Kind.FRIDGE_WARM,
            begins=_at(warm[0].at_s), ends=_at(warm[-1].at_s), by=channel.device.added_by,
            temperature_c=max(each.celsius for each in warm),
        )  # fmt: skip


def _thin(channel: Channel, now: datetime) -> None:
    """Thin what is no longer recent; what was thinned before stays as it is."""
    found = channel.readings.filter(at__lt=now - RAW)
    if channel.thinned_at is not None:
        found = found.filter(at__gte=channel.thinned_at - MINUTES - EVERY)
    rows = list(found)
    samples = one_a_minute(_samples(rows))
    first = (now - MINUTES).timestamp()
    tolerance_c = TOLERANCE_C[channel.what]  # type: ignore[index]  # the database holds these
    old = thinned([each for each in samples if each.at_s < first], tolerance_c)
    stays = {each.at_s for each in [*old, *(each for each in samples if each.at_s >= first)]}
    gone = [each.pk for each in rows if each.at.timestamp() not in stays]
    Reading.objects.filter(pk__in=gone).delete()


def samples_of(channel: Channel, since: datetime) -> list[Sample]:
    """What was believed of a channel since a moment."""
    return _samples(channel.readings.filter(at__gte=since))


def samples_by_channel(channels: Iterable[Channel], now: datetime) -> dict[int, list[Sample]]:
    """What was believed of each channel in the last thirty hours, by its id, in order.

    Of what lies before the last half hour the means over ten minutes, which is enough for a
    picture and does not change any more. The database itself is asked: thousands of rows are too
    many to be made into objects.
    """
    wires = tuple((each.pk, each.dish_id) for each in channels)
    if not wires:
        return {}
    later = (now - WHOLE).replace(second=0, microsecond=0)
    later -= timedelta(minutes=later.minute % MEAN_OVER_MIN)
    found = {channel: list(means) for channel, means in means_before(wires, later).items()}
    for channel, at_s, celsius in _asked(EACH, [pk for pk, _ in wires], later, None):
        found.setdefault(channel, []).append(Sample(at_s, celsius))
    return found


@lru_cache(maxsize=32)
def means_before(
    wires: tuple[tuple[int, int | None], ...], later: datetime
) -> dict[int, tuple[Sample, ...]]:
    """The means before a moment; a wire that is put into another dish begins anew."""
    found: dict[int, tuple[Sample, ...]] = {}
    for channel, at_s, celsius in _asked(MEANS, [pk for pk, _ in wires], later - LONGEST, later):
        found[channel] = (*found.get(channel, ()), Sample(at_s, celsius))
    return found


def _asked(
    sql: str, channels: Sequence[int], since: datetime, until: datetime | None
) -> list[tuple[int, float, float]]:
    ends = [_in_database(since), _in_database(until) if until else END_OF_TIME]
    holes = ", ".join(["%s"] * len(channels))
    with connection.cursor() as cursor:
        cursor.execute(sql.format(table=Reading._meta.db_table, ids=holes), [*channels, *ends])
        rows: list[tuple[int, float, float]] = cursor.fetchall()
    return rows


def _in_database(moment: datetime) -> str:
    return connection.ops.adapt_datetimefield_value(moment) or ""


def _samples(readings: Iterable[Reading]) -> list[Sample]:
    return [Sample(each.at.timestamp(), each.celsius) for each in readings]


def _at(at_s: float) -> datetime:
    return datetime.fromtimestamp(at_s, UTC)
