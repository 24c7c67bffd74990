"""What every document that the core reads has in common."""

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
