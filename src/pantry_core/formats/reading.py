"""Reading a JSON document and telling everything that is wrong with it at once."""

import json
from dataclasses import dataclass
from typing import TypeVar

from pydantic import ValidationError
from pydantic_core import ErrorDetails

from pantry_core.document import Document
from pantry_core.quantities import Number
from pantry_core.text import say

Kind = TypeVar("Kind", bound=Document)

DEEPEST = 20
"""Levels of objects and lists; the deepest document has nine."""
MOST_DIGITS = 30


@dataclass(frozen=True, slots=True)
class Problem:
    """One thing wrong with a document: where, as a dotted path, and what is allowed."""

    where: str
    what: str


class WrongInput(ValueError):
    """A document that cannot be computed, with all that is wrong with it."""

    def __init__(self, problems: tuple[Problem, ...]) -> None:
        super().__init__("; ".join(f"{each.where}: {each.what}" for each in problems))
        self.problems = problems


def parse_json(text: str | bytes) -> object:
    """Parse one JSON document.

    Raises: WrongInput when the text is no JSON, names a field twice, nests too deeply, has a number
    of too many digits, or half a character.
    """
    try:
        raw = json.loads(text, object_pairs_hook=_no_field_twice, parse_int=_whole)
    except (ValueError, RecursionError) as error:
        raise WrongInput(
            (Problem("", say("this is not a JSON document: {error}", error=str(error))),)
        ) from None
    wrong = _wrong_inside(raw)
    if wrong:
        raise WrongInput((Problem("", wrong),))
    return raw


def _whole(digits: str) -> int:
    if len(digits) > MOST_DIGITS:
        raise ValueError(
            say("a number has over {most_digits} digits", most_digits=Number(MOST_DIGITS))
        )
    return int(digits)


def _wrong_inside(raw: object) -> str:
    """What is wrong with a document whatever it is of: too deep, or half a character in a text."""
    level = [raw]
    for _ in range(DEEPEST):
        inner: list[object] = []
        for each in level:
            if isinstance(each, dict):
                inner += [*each, *each.values()]
            elif isinstance(each, list):
                inner += each
        if any(isinstance(each, str) and not _is_whole(each) for each in inner):
            return "a text in it has half a character; use whole ones"
        level = [each for each in inner if isinstance(each, dict | list)]
        if not level:
            return ""
    return say("it nests deeper than {deepest} levels; use fewer", deepest=Number(DEEPEST))


def _is_whole(text: str) -> bool:
    return not any("\ud800" <= sign <= "\udfff" for sign in text)


def read_document(model: type[Kind], raw: object) -> Kind:
    """Make a checked document of raw JSON data.

    Parameters: model, the kind of document; raw, as `parse_json` returns it.
    Returns: the document.
    Raises: WrongInput with every problem found.
    """
    try:
        return model.model_validate(raw)
    except ValidationError as error:
        raise WrongInput(tuple(problem_of(each) for each in _told_once(error.errors()))) from None


def _told_once(errors: list[ErrorDetails]) -> list[ErrorDetails]:
    """Leave out a list that is too short only because what is in it is wrong."""
    where = [each["loc"] for each in errors]
    return [
        each
        for each in errors
        if each["type"] != "too_short"
        or not any(loc[: len(each["loc"])] == each["loc"] != loc for loc in where)
    ]


def problem_of(details: ErrorDetails) -> Problem:
    """One problem in words that say what is allowed, from the details of a validation error."""
    where = ".".join(str(part) for part in details["loc"])
    saying = _SAYINGS.get(details["type"])
    if saying is None:
        return Problem(where, details["msg"])
    got = repr(details["input"])[:40]
    return Problem(where, say(saying, got=got, **details.get("ctx", {})))


_SAYINGS = {
    "missing": "this is required",
    "extra_forbidden": "this field is not known here; leave it out",
    "greater_than": "{got} is too small; use more than {gt:g}",
    "greater_than_equal": "{got} is too small; use {ge:g} or more",
    "less_than_equal": "{got} is too large; use {le:g} at most",
    "finite_number": "this is not a finite number; use a plain number",
    "float_type": "{got} is not a number; use a plain number",
    "int_type": "{got} is not a whole number; use a whole number",
    "bool_type": "{got} is neither true nor false",
    "string_type": "{got} is not a text",
    "literal_error": "{got} is not known; use {expected}",
    "too_long": "this is too long; use {max_length} at most",
    "too_short": "this is too short; use {min_length} or more",
    "union_tag_invalid": "{got} has no kind that is known; use {expected_tags}",
    "union_tag_not_found": "this needs a kind: surface, brine, dry, needle, rest or soak",
    "model_type": "{got} is not an object with fields",
}


def _no_field_twice(pairs: list[tuple[str, object]]) -> dict[str, object]:
    fields = dict(pairs)
    if len(fields) < len(pairs):
        names = [name for name, _ in pairs]
        twice = next(name for name in names if names.count(name) > 1)
        raise ValueError(say("the field “{twice}” is given twice", twice=twice))
    return fields
