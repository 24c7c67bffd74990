"""Geometry of the pictures, from core results to shapes; no Django."""
