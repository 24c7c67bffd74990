"""The steps each method takes, from buying to carving, with their windows."""
