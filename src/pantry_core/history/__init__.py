"""From what happened to what the models need: salt, warmth, hours raw, weights and tastes."""
