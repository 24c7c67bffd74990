"""Feasts, their dishes, the log of what happened, and the plan that follows from them."""
