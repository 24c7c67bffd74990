"""The day of smoking and roasting, by the hour: what is at the heat, and when it is done."""
