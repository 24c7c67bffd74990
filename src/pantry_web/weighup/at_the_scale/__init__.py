"""Weighing out line by line, what is used instead, and the label for the vessel."""
