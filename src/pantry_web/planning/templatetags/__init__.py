"""What templates ask of the plan."""
