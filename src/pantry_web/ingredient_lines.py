"""Ingredients as a cook writes them, one a line: "flour 500 g", "80 g flour a head"."""

import re
from collections.abc import Iterable
from typing import Any

from django import forms

from pantry_core.measures.quantity import NotAQuantity, parse_quantity
from pantry_core.quantities import Number
from pantry_core.text import say
from pantry_core.words import NotPlain, plain_text
from pantry_web.quantities import typed_mass
from pantry_web.sentences import refusal, tell

MOST_LINES, MOST_NAME = 60, 80
MOST_G = 1e6
_A_HEAD = re.compile(r"\b(a|per) (head|person)\b|\beach\b", re.IGNORECASE)
_AMOUNT = re.compile(
    r"(?:[\d½¼¾⅓⅔][\d.,/½¼¾⅓⅔]*\s*(?:kg|g|lb|oz|pounds?|ounces?|grams?)\b\s*)+", re.IGNORECASE
)


class IngredientsField(forms.CharField):
    """Ingredients of a side job, one a line; None where nothing is typed."""

    widget = forms.Textarea({"rows": 4})
    units = "metric"

    def to_python(self, value: object) -> Any:
        """The ingredients [g], each in all or a head."""
        try:
            text = plain_text(super().to_python(value) or "")
        except NotPlain as error:
            raise forms.ValidationError(refusal(error)) from None
        lines = [line.strip() for line in text.splitlines() if line.strip()]
        if len(lines) > MOST_LINES:
            raise forms.ValidationError(
                tell("{most_lines} lines are the most.", most_lines=Number(MOST_LINES))
            )
        return [_ingredient(line, self.units) for line in lines] or None


def as_lines(ingredients: Iterable[dict[str, Any]], units: str) -> str:
    """Ingredients as they are typed."""
    lines = []
    for each in ingredients:
        a_head = " a head" if each.get("a_head") else ""
        lines.append(f"{each['name']} {typed_mass(each['grams'], units)}{a_head}")
    return "\n".join(lines)


def _ingredient(line: str, units: str) -> dict[str, Any]:
    rest = _A_HEAD.sub("", line)
    found = _AMOUNT.search(rest)
    name = "" if found is None else f"{rest[: found.start()]} {rest[found.end() :]}".strip(" ,:")
    if found is None or not name:
        raise forms.ValidationError(
            say("“{line}”: a name and an amount, like “flour {500 g}”.", line=line[:40])
        )
    try:
        grams = parse_quantity(found.group().strip(), "mass", "g" if units == "metric" else "lb")
    except NotAQuantity as error:
        raise forms.ValidationError(f"“{line[:40]}”: {error}.") from None
    if not 0 < grams <= MOST_G:
        raise forms.ValidationError(
            say("“{line}”: more than nothing, and {1000 kg} at the most.", line=line[:40])
        )
    named = " ".join(name.split())[:MOST_NAME]
    return {"name": named, "grams": grams, "a_head": rest != line}
