"""One dish, worked out whole: its sheet, its steps, its salt, what must be said, and what fits."""
