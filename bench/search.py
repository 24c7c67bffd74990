"""The random searches of the tests, at random and several times over."""

import os
import subprocess
import sys

TIMES = 5
SEARCHES = ("tests", "-m", "hypothesis")


def main() -> None:
    """Run them; a case that fails is printed by the tests themselves."""
    for _ in range(TIMES):
        subprocess.run(
            [sys.executable, "-m", "pytest", "-q", "--hypothesis-show-statistics", *SEARCHES],
            env=os.environ | {"PANTRY_SEARCH": "search"},
            check=False,
        )


if __name__ == "__main__":
    main()
