"""The work itself: pure Python without interface code, clock, files or changing globals."""
