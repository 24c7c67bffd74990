"""What a line of a recipe says of the strength of a thing: "(0.5 % nitrite)", "0,4-0,5 %"."""

import re

from pantry_core.foods.ingredient import ingredient
from pantry_core.recipes.amounts import amount_at
from pantry_core.recipes.names import match

_ASIDE = re.compile(r"\(([^()]*)\)")
_STRENGTH = re.compile(
    r"(?:\b(?:with|mit|avec|con|of|at|[àa]|al)\s+)?(?P<pct>\d{1,2}(?:[.,]\d{1,4})?)\s*%\s*(?:of\s+|"
    r"de\s+|di\s+)?(?:sodium\s+|potassium\s+|natrium)?(?P<what>nitrite|nitrate|nitrit|nitrat|"
    r"nitrito|nitrato|salt|salz|sel|sal|sale)\b(?!\s*petre)|"
    r"\b(?P<what2>nitrite|nitrate|nitrit|nitrat)(?:\s+content)?\s*[:=]?\s*"
    r"(?P<pct2>\d{1,2}(?:[.,]\d{1,4})?)\s*%",
    re.IGNORECASE,
)
_BARE_PERCENT = re.compile(r"^\s*(?P<pct>\d{1,2}(?:[.,]\d{1,4})?)\s*%\s*$")
_RANGE = re.compile(
    r"\d{1,2}(?:[.,]\d{1,4})?\s*%?\s*(?:-|–|to|bis|[àa])\s*(?P<upper>\d{1,2}(?:[.,]\d{1,4})?\s*%)",
    re.IGNORECASE,
)
_BEHIND = re.compile(r"^(?P<rest>.*[^\W\d_].*?)[ ,]+(?P<pct>\d{1,2}(?:[.,]\d{1,4})?)\s*%\s*$")


def without_strength(body: str) -> tuple[str, dict[str, float]]:
    """Take what a label says out of a line.

    Parameters: body, a thing of a line with its amount.
    Returns: the rest of it, and what the label says [%]; `pct` where the line does not say of what;
    of a range the upper end, for it can hurt.
    Raises: nothing.

    >>> without_strength("35 g nitrite salt 0.4-0.5 %")
    ('35 g nitrite salt', {'pct': 0.5})
    """
    body = _RANGE.sub(lambda found: found["upper"], body)
    strength: dict[str, float] = {}
    for found in _STRENGTH.finditer(body):
        what = (found["what"] or found["what2"]).lower()
        pct = float((found["pct"] or found["pct2"]).replace(",", "."))
        kind = "nitrite" if what.startswith("nitrit") else "nitrate"
        strength[f"{kind if what.startswith('nitr') else 'salt'}_pct"] = pct
    has_name = match(_ASIDE.sub(" ", _STRENGTH.sub(" ", body))) is not None
    if strength and has_name:
        return " ".join(_STRENGTH.sub(" ", body).replace("( )", " ").split()), strength
    for aside in _ASIDE.findall(body):
        bare = _BARE_PERCENT.match(aside)
        if bare:
            return body.replace(f"({aside})", " "), {"pct": float(bare["pct"].replace(",", "."))}
    behind = _BEHIND.match(body)
    meant = match(behind["rest"]) if behind and amount_at(behind["rest"], "us") else None
    if behind and meant and ingredient(meant.keys[0]).role == "cure":
        return behind["rest"], {"pct": float(behind["pct"].replace(",", "."))}
    return body, {}
