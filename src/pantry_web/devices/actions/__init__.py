"""What changes devices and what they have told."""
