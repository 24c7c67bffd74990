"""Sauces as a cook writes them, one a line: "120 ml soy sauce"."""

from typing import Any

from django import forms
from django.core.exceptions import ValidationError

from pantry_core.foods.ingredient import ingredient
from pantry_core.quantities import Number
from pantry_core.recipes.line import ReadLine
from pantry_core.recipes.lines import read_line
from pantry_core.recipes.weights import line_grams
from pantry_core.recipes.words import Cups
from pantry_core.text import say
from pantry_web.feasts.documents import Document
from pantry_web.pantry.larder import Larder
from pantry_web.sentences import tell, translated

MOST_LINES = 20


class SaucesField(forms.CharField):
    """Lines of sauces; `larder` and `cups` are set by the form."""

    larder = Larder()
    cups: str = "us"
    widget = forms.Textarea(attrs={"rows": 2, "spellcheck": "false", "maxlength": 2000})

    def clean(self, value: Any) -> list[Document]:
        """The sauces in grams, as the `dish` document has them.

        Raises: ValidationError that names the line and what is allowed.
        """
        lines = [each.strip() for each in super().clean(value).splitlines() if each.strip()]
        if len(lines) > MOST_LINES:
            raise ValidationError(
                tell(
                    "{lines} sauces are too many; use at most {most_lines}.",
                    lines=Number(len(lines)),
                    most_lines=Number(MOST_LINES),
                )
            )
        return [self._sauce(text) for text in lines]

    def _sauce(self, text: str) -> Document:
        line = read_line(text, _cups(self.cups))
        own = self.larder.named(text)
        key = own or line.key
        problem = "" if own and line.amount is not None else line.problem
        if problem:
            raise ValidationError(f"“{text}”: {translated(problem)}")
        if key is None or ingredient(key).role != "sauce":
            raise ValidationError(
                tell(
                    "“{text}” is no sauce that is known here; put it into your stock with its "
                    "sodium, and sugar, salt and spices into their own fields.",
                    text=text,
                )
            )
        grams, salt_pct = self._weighed(text, line, key)
        sauce: Document = {"text": text, "name": key, "mass_g": grams}
        return sauce if salt_pct is None else {**sauce, "salt_pct": salt_pct}

    def _weighed(self, text: str, line: ReadLine, key: str) -> tuple[float, float | None]:
        grams = line_grams(line, key, self.larder.g_per_ml(key))
        if grams is None or grams <= 0:
            raise ValidationError(
                say("“{text}”: how much? Type it like {120 ml} or {100 g}.", text=text)
            )
        packet = self.larder.packets.get(key)
        salt_pct = packet.salt_pct if packet else None
        if key == "other-sauce" and salt_pct is None:
            raise ValidationError(
                tell("“{text}”: put its sodium into your stock first.", text=text)
            )
        return grams, salt_pct


def _cups(cups: str) -> Cups:
    known: dict[str, Cups] = {
        "us": "us", "metric": "metric", "australian": "australian", "imperial": "imperial",
    }  # fmt: skip
    return known.get(cups, "us")
