"""What is changed from the picture."""
