"""Random searches are the same each time here; `bin/bench search` looks at random."""

import os

from hypothesis import settings

settings.register_profile("same", derandomize=True, deadline=None)
settings.register_profile("search", deadline=None)
settings.load_profile(os.environ.get("PANTRY_SEARCH", "same"))
