"""What changes the shopping list: one small module for each deed."""
