"""Diffusion through a piece: one mathematics for salt and for heat."""
