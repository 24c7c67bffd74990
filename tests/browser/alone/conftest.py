"""Each test starts its own server."""

import pytest


@pytest.fixture(scope="session")
def base_url():
    """Start no common server."""
