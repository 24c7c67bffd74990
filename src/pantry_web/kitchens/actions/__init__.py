"""What changes a kitchen: one small module for each deed."""
