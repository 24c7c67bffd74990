"""Limits on smoking, and on smoked fish that is kept."""

from pantry_core.rules.constants import FISH_GUIDE
from pantry_core.rules.rule import Mark, Rule
from pantry_core.text import say

WARMING_H = Rule("smoke-warming", 6.0, say("h from {10 to 54 °C}"), "FSIS Appendix A", Mark.MEMORY)
UNCURED_WARMING_H = Rule(
    "smoke-warming-uncured",
    4.0,
    say("h from {10 to 54 °C}"),
    "uncured and not intact",
    Mark.PRACTICE,
)
WARMING_STOP_H = Rule(
    "warming-stop", 9.0, say("h from {10 to 54 °C}"), "red meat, however cured", Mark.PRACTICE
)
VACUUM_SALT_PCT = Rule(
    "smoked-vacuum", 3.5, "% salt in its water", f"{FISH_GUIDE}, vacuum-packed", Mark.MEMORY
)
VACUUM_CURED_SALT_PCT = Rule(
    "smoked-vacuum-nitrite", 3.0, "% salt in its water",
    f"{FISH_GUIDE}, vacuum-packed, with nitrite where it is allowed", Mark.MEMORY,
)  # fmt: skip
AIR_SALT_PCT = Rule(
    "smoked-air", 2.5, "% salt in its water", f"{FISH_GUIDE}, air-packed", Mark.MEMORY
)
