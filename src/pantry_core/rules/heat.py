"""Limits at the heat: fat, pressure, cold smoke."""

from pantry_core.rules.rule import Mark, Rule

FRYING_MOST_C = Rule("frying-fat-most", 190.0, "°C", "frying fat", Mark.PRACTICE)
SLOW_FAT_MOST_C = Rule("slow-fat-most", 93.0, "°C", "fat for slow cooking", Mark.PRACTICE)
PRESSURE_FILL = Rule("pressure-fill", 2 / 3, "of the pot", "a pressure pot", Mark.PRACTICE)
WARM_BOX_C = Rule("warm-box", 60.0, "°C", "USDA, held hot", Mark.MEMORY)
WARM_BOX_H = Rule("warm-box-most", 4.0, "h", "longer it turns dry and soft", Mark.PRACTICE)
CLIMB_LARGE_C = Rule(
    "climb-large", 6.0, "°C", "what is counted on in the rest of a kilogram or more", Mark.PRACTICE
)
CLIMB_SMALL_C = Rule(
    "climb-small", 3.0, "°C", "what is counted on in the rest of a smaller piece", Mark.PRACTICE
)
"""How much a piece climbs while it rests: the model says more of a hot oven, as no steam leaves."""
COLD_SMOKE_MOST_C = Rule("cold-smoke-most", 30.0, "°C", "cold smoke", Mark.PRACTICE)
