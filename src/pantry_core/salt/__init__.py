"""Salt on its way through the meat."""
