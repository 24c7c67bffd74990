"""The demo kitchen, and serving it."""
