"""What every document that the core reads has in common."""

from pydantic import AfterValidator, BaseModel, ConfigDict
from pydantic_core import PydanticCustomError

from pantry_core.words import NotPlain, plain_line, plain_text


class Document(BaseModel):
    """A checked, frozen document: no unknown fields, no guessed types, no NaN."""

    model_config = ConfigDict(
        extra="forbid", strict=True, frozen=True, allow_inf_nan=False, validate_default=True
    )


def wrong(code: str, what: str) -> PydanticCustomError:
    """An error whose message is meant for the one who wrote the document."""
    return PydanticCustomError(code, "{what}", {"what": what})


def _line(text: str) -> str:
    try:
        return plain_line(text)
    except NotPlain as error:
        raise wrong("not-plain", str(error).lower()) from None


def _text(text: str) -> str:
    try:
        return plain_text(text)
    except NotPlain as error:
        raise wrong("not-plain", str(error).lower()) from None


PLAIN_LINE, PLAIN_TEXT = AfterValidator(_line), AfterValidator(_text)
"""One line, and a text, as people write them: annotations of a field."""
