"""From what is stored to what is planned."""
