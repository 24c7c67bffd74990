"""A kitchen, its dishes and its plans as documents of the core."""
