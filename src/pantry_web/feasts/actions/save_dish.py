"""Writing down what a dish is to be."""

from collections.abc import Iterable

from django.db import transaction

from pantry_core.routes.jobs import Job
from pantry_web.feasts.laying import job_laid_out, laid_out, with_changes
from pantry_web.feasts.mixing import House, Mix, stored, work_out
from pantry_web.feasts.models import Dish, Feast, Step
from pantry_web.feasts.refusal import Refused
from pantry_web.feasts.state import derive
from pantry_web.pantry.models import Vessel

MOST_DISHES = 40
USUAL_EARLY_MIN = 60.0
"""How much earlier a dish may be done, for hands can carve one at a time (common practice)."""


@transaction.atomic
def add_dish(feast: Feast, name: str, mix: Mix, house: House, vessel: Vessel | None = None) -> Dish:
    """Add a dish to a feast, with the steps of its route.

    Raises: Refused when the feast has forty dishes.
    """
    _refuse_more(feast)
    dish = Dish(feast=feast, name=name, vessel=vessel, early_max_min=USUAL_EARLY_MIN, **stored(mix))
    dish.save()
    lay(laid_out(dish, work_out(mix, house)))
    return dish


@transaction.atomic
def add_job(feast: Feast, name: str, job: Job, mass_g: float) -> Dish:
    """Add a side job, which has no piece: so much is made of it [g].

    Raises: Refused when the feast has forty dishes.
    """
    _refuse_more(feast)
    dish = Dish.objects.create(
        feast=feast, name=name, job=job.id, mass_g=mass_g, target_salt_pct=0,
        early_max_min=USUAL_EARLY_MIN,
    )  # fmt: skip
    lay(job_laid_out(dish))
    return dish


@transaction.atomic
def change_dish(
    dish: Dish, name: str, mix: Mix, house: House, vessel: Vessel | None = None
) -> Dish:
    """Change a dish and lay its steps out anew; what the cook changed of the steps stays.

    Raises: Refused once the meat has gone in: its sheet is frozen then.
    """
    state = derive(dish.events.all())
    if state.put_in is not None:
        raise Refused("The meat is in: its weigh-out sheet stays as it was.")
    for field, value in stored(mix).items():
        setattr(dish, field, value)
    dish.name, dish.vessel = name, vessel
    dish.save()
    before = list(dish.steps.all())
    dish.steps.all().delete()
    lay(with_changes(laid_out(dish, work_out(mix, house)), before))
    return dish


def lay(steps: Iterable[Step]) -> None:
    """Store steps."""
    Step.objects.bulk_create(steps)


def keep_recipe(dish: Dish, text: str) -> None:
    """Keep the recipe as it was found beside its dish."""
    dish.recipe = text
    dish.save(update_fields=["recipe"])


def give_up(dish: Dish) -> None:
    """Leave a dish out of its feast: it goes for good when nothing has happened to it yet.

    What has begun stays, with its log, but is no longer planned.
    """
    if dish.events.exists():
        dish.is_given_up = True
        dish.save(update_fields=["is_given_up"])
    else:
        dish.delete()


def take_up(dish: Dish) -> None:
    """Take a dish up again that was left out."""
    dish.is_given_up = False
    dish.save(update_fields=["is_given_up"])


def _refuse_more(feast: Feast) -> None:
    if feast.dishes.count() >= MOST_DISHES:
        raise Refused(f"{MOST_DISHES} dishes are the most a feast can hold; leave one out first.")
