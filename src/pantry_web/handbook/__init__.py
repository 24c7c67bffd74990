"""The words of the trade, the methods, the schools and the limits, on one page."""
