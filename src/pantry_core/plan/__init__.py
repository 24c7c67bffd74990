"""When each step of a dish happens, counted backwards from the hour of the feast."""
