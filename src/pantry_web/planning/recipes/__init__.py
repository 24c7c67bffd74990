"""The recipe of a dish, as its pages show it."""
