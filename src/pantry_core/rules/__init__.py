"""Limits and cautions as data, each with its unit, its source and its mark."""

from pantry_core.rules.rule import Mark, Rule, Source

RULES_VERSION = "2026.19"
"""Kept with every weigh-out sheet; raised when a value or formula changes what a sheet says."""

__all__ = ["RULES_VERSION", "Mark", "Rule", "Source"]
