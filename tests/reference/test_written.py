"""Random recipes in dishes: no mass changed, and every proposal does what it says.

`bin/bench written` tries many more.
"""

import random

import pytest

from tests.reference.written import disagreement


@pytest.mark.parametrize("seed", range(20))
def test_a_recipe_keeps_its_masses_and_each_offer_does_what_it_says(seed):
    found, document = disagreement(random.Random(seed))
    assert found is None, document
