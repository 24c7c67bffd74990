"""Who comes in: signing in, inviting, roles, passwords, and wrong ones."""
