"""Whether a piece fits its vessel and lies covered."""
