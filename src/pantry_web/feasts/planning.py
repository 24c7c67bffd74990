"""The plan of a feast as it stands: built from steps and logs, solved by the core, kept a while."""

from dataclasses import dataclass, field, replace
from datetime import datetime
from functools import cached_property

from django.db.models import prefetch_related_objects

from pantry_core.notice import Notice
from pantry_core.plan.problem import GRID, resolve
from pantry_core.plan.request import Away, Day, DishRequest, PlanRequest, StepRequest
from pantry_core.plan.result import Plan, PlannedStep, Round
from pantry_web.feasts.mixing import House, Mixed, house_of, mix_of, work_out
from pantry_web.feasts.models import Dish, Feast, Mishap, Solve, Step
from pantry_web.feasts.solving import Kept, solved
from pantry_web.feasts.state import DishState, StepFacts, derive
from pantry_web.feasts.warmth import judge_warmth
from pantry_web.kitchens.models import Kitchen

HUES = 8
"""So many dishes are told apart by hue and hatch; the next begins again."""


@dataclass(frozen=True, eq=False)
class Outlook:
    """A dish at a moment: its steps, what has happened, and its part of the plan."""

    dish: Dish
    kitchen: Kitchen
    now: datetime
    steps: tuple[Step, ...]
    state: DishState
    whole: "FeastOutlook" = field(repr=False)

    @property
    def key(self) -> str:
        """The id of the dish in plan documents."""
        return str(self.dish.pk)

    @property
    def hue(self) -> int:
        """What tells the dish apart, by its place in the feast."""
        return self.whole.dishes.index(self) % HUES

    @cached_property
    def plan(self) -> Plan | None:
        """Its part of the feast's plan; None once its hour has passed."""
        whole = self.whole.plan
        if whole is None or self.key not in self.whole.planned_dishes:
            return None
        own = tuple(each for each in whole.steps if each.dish == self.key)
        rounds = (
            Round(each.at, jobs)
            for each in whole.rounds
            if (jobs := tuple(job for job in each.jobs if job.dish == self.key))
        )
        ahead = [each for each in own if each.step not in self.state.begun]
        latest = ahead[0].latest_start if ahead else None
        return replace(whole, steps=own, rounds=tuple(rounds), latest_start=latest)

    @cached_property
    def mixed(self) -> Mixed | None:
        """The mix as the rules of today work it out; None for a side job, which has none."""
        return None if self.dish.job else work_out(mix_of(self.dish), self.whole.house)

    @property
    def stops(self) -> tuple[Notice, ...]:
        """What keeps the meat out, as long as it is out."""
        return () if self.state.put_in or self.mixed is None else self.mixed.stops

    @cached_property
    def warm(self) -> Notice | None:
        """What its time above 5 °C means, None when it had none."""
        return judge_warmth(self.dish, self.steps, self.state, self.whole.mishaps, self.now)

    def planned(self, key: str) -> PlannedStep | None:
        """The planned or past times of a step."""
        if self.plan is None:
            return None
        return next((each for each in self.plan.steps if each.step == key), None)

    def step(self, key: str) -> Step | None:
        """The step with this key."""
        return next((each for each in self.steps if each.key == key), None)


@dataclass(frozen=True, eq=False)
class FeastOutlook:
    """A feast at a moment, with the outlook of each of its dishes."""

    feast: Feast
    kitchen: Kitchen
    now: datetime
    dishes: list[Outlook] = field(default_factory=list)

    @property
    def discarded(self) -> list[Outlook]:
        """Dishes that were too warm for too long."""
        warm = ((each, each.warm) for each in self.dishes if not each.dish.is_given_up)
        return [each for each, notice in warm if notice and notice.level == "stop"]

    @cached_property
    def house(self) -> House:
        """What of the kitchen bears on its mixes, read once for all dishes."""
        return house_of(self.kitchen)

    @cached_property
    def mishaps(self) -> list[Mishap]:
        """What befell the kitchen so far."""
        return list(self.kitchen.mishaps.filter(begins__lte=self.now))

    @cached_property
    def why_not(self) -> list[str]:
        """What stands against the plan, in few sentences."""
        from pantry_core.plan.reasons import in_few_words  # noqa: PLC0415 - imports the solver

        if self.plan is None:
            return []
        return in_few_words(resolve(plan_request(self, hold=False)), self.plan.why)

    @property
    def planned_dishes(self) -> frozenset[str]:
        """Ids of the dishes that are planned: not given up, with steps, their hour ahead."""
        return frozenset(
            each.key
            for each in self.dishes
            if not each.dish.is_given_up
            and each.steps
            and (each.dish.serve_at or self.feast.serve_at) > self.now
        )

    @property
    def has_several(self) -> bool:
        """Whether there is more than one dish."""
        return len(self.dishes) > 1

    @property
    def is_begun(self) -> bool:
        """Whether something has been done for any dish."""
        return any(each.state.begun for each in self.dishes)

    @property
    def plan(self) -> Plan | None:
        """The plan of all dishes; None when nothing lies ahead, or it is being worked out."""
        return self._solution if isinstance(self._solution, Plan) else None

    @property
    def solving(self) -> Solve | None:
        """The plan while it is being worked out."""
        return self._solution if isinstance(self._solution, Solve) else None

    @cached_property
    def _solution(self) -> Plan | Solve | None:
        """Solved when first asked for."""
        if self.feast.serve_at <= self.now or not self.planned_dishes:
            return None
        keep = kept_starts(self.feast) if self.is_begun else {}
        found = solved(plan_request(self, hold=False), keep)
        if isinstance(found, Plan) and found.status == "infeasible":
            held = solved(plan_request(self, hold=True), keep)
            if not isinstance(held, Plan) or held.status != "infeasible":
                return held
        return found

    def of(self, dish: Dish) -> Outlook:
        """The outlook of one of its dishes."""
        return next(each for each in self.dishes if each.dish.pk == dish.pk)


def feast_outlook(feast: Feast, kitchen: Kitchen, now: datetime) -> FeastOutlook:
    """The outlook of a feast: its dishes, their steps and logs are read, one query each."""
    whole = FeastOutlook(feast, kitchen, now)
    dishes = list(feast.dishes.all())
    prefetch_related_objects(dishes, "steps", "events")
    for dish in dishes:
        dish.feast = feast
        state = derive(dish.events.all(), now)
        whole.dishes.append(Outlook(dish, kitchen, now, tuple(dish.steps.all()), state, whole))
    return whole


def outlook(dish: Dish, kitchen: Kitchen, now: datetime) -> Outlook:
    """The outlook of a dish, as a part of its feast's."""
    return feast_outlook(dish.feast, kitchen, now).of(dish)


def kept_starts(feast: Feast) -> Kept:
    """The starts of the plan that the cook last went by."""
    return {
        (each["dish"], each["step"]): datetime.fromisoformat(each["start"])
        for each in feast.kept_plan or ()
    }


def plan_request(whole: FeastOutlook, *, hold: bool) -> PlanRequest:
    """The `plan` document of a feast.

    Holding a piece before the heat is for one that was lifted early: without `hold` it is left out,
    so that no plan takes a piece out of its cure only to let it lie.
    """
    feast, kitchen = whole.feast, whole.kitchen
    planned = whole.planned_dishes
    return PlanRequest(
        now=whole.now.isoformat(),
        tz=feast.time_zone,
        serve_at=feast.serve_at.isoformat(),
        day=Day(wake=f"{kitchen.wake:%H:%M}", sleep=f"{kitchen.sleep:%H:%M}"),
        away=tuple(
            Away.model_validate({"from": each.begins.isoformat(), "to": each.ends.isoformat()})
            for each in kitchen.absences.all()
            if each.ends > whole.now
        ),
        cooks=kitchen.cooks,
        places={place.name: place.capacity for place in kitchen.places.all()},
        dishes=tuple(
            _dish_request(each, hold=hold) for each in whole.dishes if each.key in planned
        ),
    )


def _on_grid(moment: datetime | None, anchor: datetime | None) -> str | None:
    if moment is None:
        return None
    return (moment - (moment - (anchor or moment)) % GRID).isoformat()


def _dish_request(view: Outlook, *, hold: bool) -> DishRequest:
    """A dish; steps that were passed over before the last fact are left out."""
    asked = [
        step_request(step, view.state.facts.get(step.key, StepFacts()), view.dish.feast.serve_at)
        for step in view.steps
        if hold or step.kind != "hold" or step.key in view.state.begun
    ]
    begun = [i for i, each in enumerate(asked) if each.started_at or each.ended_at]
    last_fact = begun[-1] if begun else -1
    return DishRequest(
        id=view.key,
        name=view.dish.name,
        serve_at=_on_grid(view.dish.serve_at, view.dish.feast.serve_at),
        early_max_min=view.dish.early_max_min,
        steps=tuple(each for i, each in enumerate(asked) if i >= last_fact or i in begun),
    )


def step_request(step: Step, fact: StepFacts, anchor: datetime | None = None) -> StepRequest:
    """A step of the plan document, with what has happened of it.

    A lock falls on the quarter hour before it, counted from the anchor: the feast may have moved.
    """
    return StepRequest(
        id=step.key,
        name=step.title,
        kind=step.kind,
        place=step.place or None,
        min_h=step.min_h,
        prefer_h=step.prefer_h,
        max_h=step.max_h,
        hands_min=step.hands_min,
        attended=step.attended,
        uses=step.uses,
        every_h=step.every_h,
        rounds_done=tuple(each.isoformat() for each in fact.rounds_done),
        started_at=fact.started_at.isoformat() if fact.started_at else None,
        ended_at=fact.ended_at.isoformat() if fact.ended_at else None,
        locked_start=_on_grid(step.locked_start, anchor),
    )
