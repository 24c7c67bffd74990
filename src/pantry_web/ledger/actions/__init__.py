"""What is written into the ledger, one deed a module."""
