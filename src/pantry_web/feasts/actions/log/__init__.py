"""What is appended to the log of a dish: one small module for each deed."""
