"""Today: everything that is due, over all feasts, in the order of the hands."""
