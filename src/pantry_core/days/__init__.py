"""Days that a feast may be on: public holidays, movable feasts."""
