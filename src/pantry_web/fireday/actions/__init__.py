"""What is changed at the fire."""
