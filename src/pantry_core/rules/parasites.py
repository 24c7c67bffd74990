"""How long and how cold fish is frozen against parasites."""

from dataclasses import dataclass

from pantry_core.rules.profiles import ProfileName
from pantry_core.rules.rule import Mark, Rule, Source
from pantry_core.text import Sentence, say

_CODE = "FDA Food Code 3-402.11"
_EU = "Regulation (EC) 853/2004"


@dataclass(frozen=True, slots=True)
class Frozen:
    """A frost that kills parasites: at most so warm [°C], for so long [h]."""

    celsius: Rule
    hours: Rule
    words: Sentence
    basis: Source


FROZEN: dict[ProfileName, Frozen] = {
    "us": Frozen(
        Rule("parasites-us-cold", -20.0, "°C", _CODE, Mark.MEMORY),
        Rule("parasites-frozen", 168.0, "h", say("FDA Food Code 3-402.11, {−20 °C}"), Mark.MEMORY),
        say(
            "7 days at {−20 °C}, or {−35 °C} until solid and then 15 h at {−35 °C} or 24 h at "
            "{−20 °C}"
        ),
        Source(_CODE, Mark.MEMORY),
    ),
    "eu": Frozen(
        Rule("parasites-eu-cold", -20.0, "°C", _EU, Mark.MEMORY),
        Rule("parasites-eu-frozen", 24.0, "h", _EU, Mark.MEMORY),
        say("24 h at {−20 °C} all through"),
        Source(_EU, Mark.MEMORY),
    ),
}
FROZEN_DEEP = Frozen(
    Rule("parasites-deep-cold", -35.0, "°C", _CODE, Mark.MEMORY),
    Rule("parasites-deep-frozen", 15.0, "h", _CODE, Mark.MEMORY),
    say("{−35 °C} until solid and then 15 h at {−35 °C}"),
    Source(_CODE, Mark.MEMORY),
)
