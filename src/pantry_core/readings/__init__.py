"""What probes and thermometers tell: sifted, thinned, and watched."""
