"""Mass balance of brines and dry cures, nitrite counts and the cautions that go with them."""
