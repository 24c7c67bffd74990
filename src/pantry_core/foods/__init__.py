"""Foods that cooks use, from a public table: what is in them, and what a cup or a piece weighs."""
