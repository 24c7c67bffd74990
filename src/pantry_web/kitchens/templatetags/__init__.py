"""What templates show."""
