"""Rounds: what to do next, tick, undo."""
