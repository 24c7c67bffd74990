"""What keeps steps: one small module for each deed."""
