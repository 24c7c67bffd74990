"""The pantry: the cook's own salts and sauces, spoons, scales and vessels, and what is in stock."""
