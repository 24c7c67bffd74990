"""Who cooks where: signing in, the house, its clock."""
