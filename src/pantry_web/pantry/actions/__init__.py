"""What changes a pantry: one small module for each deed."""
