"""Reading recipes as people write them."""
