"""What is learnt of 200 made-up kitchens with true factors, and that no limit moves by it.

Run it with `bin/bench learning` (about two minutes). The kitchens are those of the tests, with
careless cooks among them; KITCHENS and CASES set how many.
"""

import json
import math
import os
import random
import statistics

from tests.reference.dishes import random_dish
from tests.reference.test_learning import LEARNT, learnt, limits

from pantry_core.dish.request import DishRequest
from pantry_core.dish.work import dish

KITCHENS = int(os.environ.get("KITCHENS", "200"))
CASES = int(os.environ.get("CASES", "2000"))
PLACES = ("oven", "smoker", "hob", "fire")


def main() -> None:
    """Learn of each kitchen, and print how near it came as lines of JSON."""
    for name in LEARNT:
        found = list(learnt(name, KITCHENS))
        nearer = [
            abs(math.log(got.value / true)) < abs(math.log(true)) for true, got, _, _ in found
        ]
        held = [got.low <= true <= got.high for true, got, _, _ in found]
        told = {"figure": name, "nearer": _share(nearer), "band_holds": _share(held)}
        if name == "oven":
            sixth = [
                (math.log(one.oven) + dice.gauss(0.0, 0.08), got) for _, got, one, dice in found
            ]
            own = [abs(took - math.log(got.value)) for took, got in sixth]
            general = [abs(took) for took, _ in sixth]
            told["error_of_the_sixth"] = round(statistics.mean(own) / statistics.mean(general), 2)
        print(json.dumps(told), flush=True)
    moved = compared = 0
    for number in range(CASES):
        case = _case(random.Random(f"bench-{number}"))
        compared += case is not None
        moved += case is False
    print(json.dumps({"cases": CASES, "compared": compared, "limits_moved": moved}))
    assert not moved


def _share(found) -> float:
    return round(statistics.mean(found), 3)


def _case(dice) -> bool | None:
    """Whether a dish has the same limits and stops, lying as long; None for what cannot be."""
    document = {"profile": dice.choice(("us", "eu")), **random_dish(dice)}
    hours = {place: dice.uniform(0.5, 2.0) for place in PLACES}
    house = {"learnt": {"salt_speed": dice.uniform(0.5, 2.0), "hours": hours}}
    try:
        first = dish(DishRequest.model_validate({**document, "house": house}))
    except ValueError:
        return None
    if first.days is None:
        return None
    lying = {**document, "cure": {**document["cure"], "days": first.days}}
    own = dish(DishRequest.model_validate({**lying, "house": house}))
    return limits(own) == limits(dish(DishRequest.model_validate(lying)))


main()
