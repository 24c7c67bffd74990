"""Units and quantities as cooks write them."""
