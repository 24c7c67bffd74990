"""The documents in which other programs talk to the core, and what it hands out."""
