"""Dishes worked out whole by the core, each once for the same document and rules."""

import hashlib
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from functools import cache
from pathlib import Path
from typing import Any

from pydantic import TypeAdapter, ValidationError
from pydantic_core import to_json

import pantry_core
from pantry_core.dish.answer import DishOut, DishStep
from pantry_core.dish.clock import WrongDish
from pantry_core.dish.request import DishRequest
from pantry_core.dish.work import dish
from pantry_core.errors import OutOfRange
from pantry_core.formats.reading import Problem, problem_of
from pantry_core.rules import RULES_VERSION
from pantry_core.text import WHOLE
from pantry_web.background.patient import write_if_free
from pantry_web.planning.models import DishAnswer

Document = dict[str, Any]

FORGOTTEN = timedelta(days=3)
MOST_REMEMBERED = 2000
_ADAPTER: TypeAdapter[DishOut] = TypeAdapter(DishOut)


@dataclass(frozen=True, slots=True)
class Broken:
    """A dish that the core cannot work out any more, with what is wrong."""

    problems: tuple[Problem, ...]


Answer = DishOut | Broken


def answers_to(documents: Sequence[Document]) -> list[Answer]:
    """The answers to `dish` documents, as JSON data.

    Returns: each answer, or what is wrong with its document. What was answered before is taken from
    the store; what is new goes into it with `keep_answers`.
    """
    digests = [digest_of(each) for each in documents]
    known = {digest: answer for digest in digests if (answer := _remembered.get(digest))}
    missing = set(digests) - set(known)
    if missing:
        known |= _stored(missing)
    fresh = {}
    for digest, document in zip(digests, documents, strict=True):
        if digest not in known:
            known[digest] = fresh[digest] = work_out(document)
    _to_keep.update(fresh)
    _remember(known)
    return [known[digest] for digest in digests]


def answered(documents: dict[str, Document]) -> dict[str, Answer]:
    """The answers to `dish` documents by their keys."""
    return dict(zip(documents, answers_to(list(documents.values())), strict=True))


def answered_anew(
    documents: dict[str, Document], before: dict[str, Document], answers: dict[str, Answer]
) -> dict[str, Answer]:
    """The answers, those to documents that are as they were before among them."""
    changed = {key: each for key, each in documents.items() if each is not before[key]}
    return answers | answered(changed)


def steps_of(answer: Answer) -> tuple[DishStep, ...]:
    """The steps of an answer; none of a dish that cannot be worked out."""
    return () if isinstance(answer, Broken) else answer.steps


def work_out(document: Document) -> Answer:
    """Work a `dish` document out."""
    try:
        return dish(DishRequest.model_validate(document))
    except ValidationError as error:
        return Broken(tuple(problem_of(each) for each in error.errors()))
    except WrongDish as error:
        return Broken(tuple(Problem(where, what) for where, what in error.wrongs))
    except OutOfRange as error:
        return Broken((Problem("", str(error)),))


def digest_of(document: Document) -> str:
    """The digest of a document and of all that answers it."""
    return hashlib.sha256(_rules_digest().encode() + to_json(document)).hexdigest()


@cache
def _rules_digest() -> str:
    """The version of the rules, and the core as it is: what changes it changes every answer."""
    made = hashlib.sha256(RULES_VERSION.encode())
    for path in sorted(Path(pantry_core.__path__[0]).rglob("*.py")):
        made.update(path.read_bytes())
    return made.hexdigest()


_remembered: dict[str, Answer] = {}
_to_keep: dict[str, Answer] = {}
"""Answers that this process worked out and has not stored yet."""


def forget_old_answers() -> None:
    """Throw away what was stored long ago."""
    oldest = date.today() - FORGOTTEN  # noqa: DTZ011 - a day more or less does not matter
    DishAnswer.objects.filter(kept_on__lt=oldest).delete()


def forget() -> None:
    """Forget what this process remembers; what is stored stays."""
    _remembered.clear()
    _to_keep.clear()


def _remember(answers: dict[str, Answer]) -> None:
    """Keep answers in this process; when they are too many, begin anew."""
    if len(_remembered) > MOST_REMEMBERED:
        _remembered.clear()
        _to_keep.clear()
    _remembered.update(answers)


def _stored(digests: Iterable[str]) -> dict[str, Answer]:
    rows = DishAnswer.objects.in_bulk(list(digests))
    return {digest: _ADAPTER.validate_json(row.answer) for digest, row in rows.items()}


def keep_answers() -> None:
    """Store what this process has worked out, so that other processes can read it."""
    rows = [
        DishAnswer(digest=digest, answer=_ADAPTER.dump_json(answer, context=WHOLE).decode())
        for digest, answer in list(_to_keep.items())
        if not isinstance(answer, Broken)
    ]
    _to_keep.clear()
    if rows:
        write_if_free(lambda: DishAnswer.objects.bulk_create(rows, ignore_conflicts=True))
