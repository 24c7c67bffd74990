"""What the weigh-up writes: each a deed of its own."""
