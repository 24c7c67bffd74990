"""What keeps a kitchen running: serving it, its health, copies of its database."""
