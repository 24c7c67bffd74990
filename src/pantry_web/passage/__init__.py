"""Passage: the picture of the plan, and the plan as a calendar."""
