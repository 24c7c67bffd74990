"""What is done from the command line."""
