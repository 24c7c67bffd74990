"""Simulated probes and thermometers: a kitchen of their own, and what devices there would send.

Nothing of the core or the web is used here, so that what the one foretells the other can judge.
"""
