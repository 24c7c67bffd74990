"""Chilling, and other matters of heat."""
