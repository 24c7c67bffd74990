"""A form sent twice is done once, and answered the same."""
