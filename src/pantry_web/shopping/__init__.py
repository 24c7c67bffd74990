"""The shopping list: what is missing, by when, over all dishes."""
