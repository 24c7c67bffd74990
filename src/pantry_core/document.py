"""What every document that the core reads has in common."""

from collections.abc import Iterable

from pydantic import BaseModel, ConfigDict
from pydantic_core import PydanticCustomError


class Document(BaseModel):
    """A checked, frozen document: no unknown fields, no guessed types, no NaN."""

    model_config = ConfigDict(
        extra="forbid", strict=True, frozen=True, allow_inf_nan=False, validate_default=True
    )


def wrong(code: str, what: str) -> PydanticCustomError:
    """An error whose message is meant for the one who wrote the document."""
    return PydanticCustomError(code, "{what}", {"what": what})


def only(value: str, known: Iterable[str], subject: str) -> str:
    """Return value when it is among known, else refuse it as not computed yet."""
    names = tuple(known)
    if value not in names:
        raise wrong("not_yet", f"{subject} {value} is not computed yet; {' or '.join(names)} is")
    return value
