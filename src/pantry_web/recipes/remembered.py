"""What the kitchen answered before about the same thing in another recipe."""

from collections.abc import Sequence
from functools import cached_property

from pantry_core.foods.ingredient import ingredient
from pantry_web.feasts.documents import Document
from pantry_web.feasts.models import Dish

LATEST = 60
"""So many of the latest recipes are looked through."""


class Remembered:
    """The lines of a kitchen's recipes, read from the database when one is first wanted."""

    def __init__(self, dish: Dish) -> None:
        self.dish = dish

    @cached_property
    def lines(self) -> list[Document]:
        """Lines of the latest recipes, the newest first."""
        kept = (
            Dish.objects.filter(
                feast__kitchen=self.dish.feast.kitchen, document__recipe__lines__isnull=False
            )
            .order_by("-pk")
            .values_list("document__recipe__lines", flat=True)
        )
        return [line for lines in kept[:LATEST] for line in lines]

    def answer(self, words: str, keys: Sequence[str]) -> Document | None:
        """The line that had the same words and was answered with one of some keys.

        Parameters: words of the thing; keys that it may be.
        Returns: the line as it was kept; None where there is none. Where one of the keys is a
        curing salt the question is put each time: a wrong answer could hurt.
        """
        thing = words.strip(" .:,").lower()
        if not thing or any(ingredient(key).role == "cure" for key in keys):
            return None
        return next(
            (each for each in self.lines
             if each["name"] in keys and thing in each.get("text", "").lower()),
            None,
        )  # fmt: skip
