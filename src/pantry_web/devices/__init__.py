"""Probes, thermometers and scales that send what they read."""
