"""The rules as questions to the history of a piece."""
