"""What is worked out beside the pages: the one queue."""
