"""What brings a kitchen in."""
