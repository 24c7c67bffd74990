"""Tags."""
