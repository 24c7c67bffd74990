"""Steps: what a dish goes through, as the cook wants it."""
