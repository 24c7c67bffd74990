"""Weigh-up: what to put on the scale."""
