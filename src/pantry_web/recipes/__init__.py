"""A recipe as it was found: checked for a dish, put right, and taken."""
