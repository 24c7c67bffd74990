"""A kitchen taken out whole, and brought in again."""
