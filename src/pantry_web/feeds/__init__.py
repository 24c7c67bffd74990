"""The plan as a calendar that keeps itself up to date: an address that only its cook knows."""
