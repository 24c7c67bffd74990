"""What changes who cooks in a kitchen: one small module for each deed."""
