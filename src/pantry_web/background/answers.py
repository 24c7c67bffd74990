"""What one kind of work answers: the key by which it is kept, and how it is written and read."""

import hashlib
from dataclasses import dataclass
from functools import cached_property
from typing import Any, Generic, TypeVar

from pydantic import TypeAdapter
from pydantic_core import to_json

T = TypeVar("T")


@dataclass(frozen=True)
class Answers(Generic[T]):
    """The answers of one kind of work.

    The key has the shape of the answer in it: an answer that was kept in another shape is not read,
    the work is done again.
    """

    kind: str
    adapter: TypeAdapter[T]

    @cached_property
    def shape(self) -> str:
        """The schema of the answer, as a digest."""
        return hashlib.sha256(to_json(self.adapter.json_schema(mode="serialization"))).hexdigest()

    def key_of(self, request: object) -> str:
        """A key that is the same for the same request, as JSON data."""
        return f"{self.kind}-{hashlib.sha256(to_json((self.shape, request))).hexdigest()}"

    def written(self, answer: T) -> Any:
        """The answer as it is kept."""
        return self.adapter.dump_python(answer)

    def read(self, kept: Any) -> T:
        """The answer from what was kept.

        Raises: pydantic.ValidationError for what is none.
        """
        return self.adapter.validate_python(kept, strict=False)
