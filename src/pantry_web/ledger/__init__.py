"""Ledger: what came of a dish, what a kitchen learns of it, and what to do next time."""
