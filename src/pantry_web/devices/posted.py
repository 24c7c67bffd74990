"""What a device posts, read and checked: all that is wrong with it at once."""

from collections.abc import Iterator
from datetime import datetime
from typing import Annotated, Any

from pydantic import Field, ValidationError

from pantry_core.document import Document
from pantry_core.formats.reading import Problem, problem_of
from pantry_core.readings.sift import Sample
from pantry_web.devices.models import MOST_CHANNELS

MOST_AT_ONCE = 500


class Posted(Document):
    """A reading: its channel, °C, °F or grams, and when: `at`, or `age_s` before now; else now."""

    channel: Annotated[int, Field(ge=1, le=MOST_CHANNELS)]
    celsius: Annotated[float, Field(ge=-300, le=2000)] | None = None
    fahrenheit: Annotated[float, Field(ge=-500, le=4000)] | None = None
    grams: Annotated[float, Field(ge=-1000, le=100_000)] | None = None
    at: str | None = None
    age_s: Annotated[float, Field(ge=0, le=1e6)] | None = None


class Post(Document):
    """What is posted."""

    readings: Annotated[tuple[Posted, ...], Field(strict=False, max_length=MOST_AT_ONCE)]


def read_post(raw: Any, now: datetime) -> tuple[dict[int, list[Sample]], list[Problem]]:
    """Readings by channel, or all that is wrong.

    Parameters: raw, JSON data; now, by the kitchen's clock.
    """
    try:
        post = Post.model_validate(raw)
    except ValidationError as error:
        return {}, [problem_of(each) for each in error.errors()]
    found: dict[int, list[Sample]] = {}
    problems = list(_read(post, now, found))
    return ({}, problems) if problems else (found, [])


def _read(post: Post, now: datetime, found: dict[int, list[Sample]]) -> Iterator[Problem]:
    for n, each in enumerate(post.readings):
        given = [each.celsius, each.fahrenheit, each.grams]
        if given.count(None) != len(given) - 1:
            yield Problem(f"readings.{n}", "celsius or fahrenheit or grams; give one of them")
            continue
        at_s = now.timestamp() - (each.age_s or 0.0)
        if each.at is not None:
            try:
                at = datetime.fromisoformat(each.at)
            except ValueError:
                yield Problem(f"readings.{n}.at", "use a moment like 2027-03-22T12:05:00+00:00")
                continue
            if at.tzinfo is None:
                yield Problem(f"readings.{n}.at", "it needs its offset, like +00:00")
                continue
            at_s = at.timestamp()
        found.setdefault(each.channel, []).append(Sample(round(at_s, 1), _value(each)))


def _value(posted: Posted) -> float:
    """What was read [°C], or weighed [g]."""
    if posted.fahrenheit is not None:
        return (posted.fahrenheit - 32.0) / 1.8
    return posted.celsius if posted.celsius is not None else posted.grams or 0.0
