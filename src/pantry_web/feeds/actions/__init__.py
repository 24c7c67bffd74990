"""What changes the addresses of calendars."""
