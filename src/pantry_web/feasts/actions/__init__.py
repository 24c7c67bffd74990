"""What changes a feast: one small module for each deed, called alike by pages and scripts."""
