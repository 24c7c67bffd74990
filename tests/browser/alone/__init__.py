"""Browser tests that serve a kitchen of their own: they stop it, or move its clock."""
