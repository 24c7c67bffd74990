"""A feast and its dishes at a moment, as every page shows them: read, with the plan there is."""

from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from datetime import datetime
from functools import cached_property

from pantry_core.dish.answer import DishNotice, DishOut, DishStep, Verdict
from pantry_core.formats.reading import Problem
from pantry_core.plan.result import Break, Plan, PlannedStep, Round, Why
from pantry_web.background.models import Work
from pantry_web.feasts.documents import House
from pantry_web.feasts.models import Dish, Event, Feast, Mishap
from pantry_web.feasts.state import DishState
from pantry_web.kitchens.models import Kitchen
from pantry_web.ledger.noted import Notes, last_notes
from pantry_web.planning.answers import Answer, Broken, answered_anew
from pantry_web.planning.documents.dish_document import Document, with_plan
from pantry_web.planning.documents.surroundings import Surroundings
from pantry_web.planning.reading import DishRead, FeastRead
from pantry_web.planning.solving import Solved
from pantry_web.planning.standing import Standing, question


@dataclass(frozen=True, eq=False)
class Outlook:
    """A dish at a moment: what was read of it, its part of the plan, and its answer with that."""

    read: DishRead = field(repr=False)
    whole: "FeastOutlook" = field(repr=False)

    @property
    def dish(self) -> Dish:
        """The dish as it is stored."""
        return self.read.dish

    @property
    def kitchen(self) -> Kitchen:
        """Whose dish it is."""
        return self.whole.kitchen

    @property
    def now(self) -> datetime:
        """The moment."""
        return self.whole.now

    @property
    def state(self) -> DishState:
        """What has happened to it."""
        return self.read.state

    @property
    def log(self) -> Sequence[Event]:
        """All that was written down of it, later than this moment and withdrawn too."""
        return self.read.log

    @cached_property
    def key(self) -> str:
        """The id of the dish in plan documents."""
        return self.read.key

    @property
    def problems(self) -> tuple[Problem, ...]:
        """Why the core cannot work it out; empty when it can."""
        answer = self._answer
        return answer.problems if isinstance(answer, Broken) else ()

    @property
    def answer(self) -> DishOut | None:
        """What the core says of it as it is planned and as it went; None where it cannot."""
        answer = self._answer
        return None if isinstance(answer, Broken) else answer

    @property
    def _answer(self) -> Answer:
        return self.whole.answers[self.key]

    @cached_property
    def steps(self) -> tuple[DishStep, ...]:
        """Its steps in order."""
        return self.read.steps

    @property
    def notices(self) -> tuple[DishNotice, ...]:
        """All that must be said of it."""
        return self.answer.notices if self.answer else ()

    @property
    def verdict(self) -> Verdict:
        """Go, caution or stop."""
        return self.answer.verdict if self.answer else "stop"

    @cached_property
    def is_discarded(self) -> bool:
        """Whether it is to be thrown away."""
        return self.read.is_discarded

    @cached_property
    def next_in_hands(self) -> DishStep | None:
        """The next step that begins with work; none for a dish that is to be discarded."""
        if self.is_discarded or self.problems:
            return None
        begun = [i for i, step in enumerate(self.steps) if step.id in self.state.begun]
        last_begun = max(begun, default=-1)
        return next((step for step in self.steps[last_begun + 1 :] if step.hands_min), None)

    def noted(self, step: str) -> tuple[str, ...]:
        """What was noted the last time and is to be heeded at a step."""
        return self._last_notes.get(step, ())

    @cached_property
    def _last_notes(self) -> Notes:
        return last_notes(self.dish, self.steps)

    def withheld(self, step: str) -> tuple[DishNotice, ...]:
        """The stops that hold a step back."""
        return tuple(each for each in self._stops if each.step == step)

    @cached_property
    def _stops(self) -> tuple[DishNotice, ...]:
        return tuple(each for each in self.notices if each.level == "stop")

    @property
    def why_left_out(self) -> tuple[str, ...]:
        """What stands against it alone, so that the others are planned without it."""
        solution = self.whole.solution
        return solution.left_out.get(self.key, ()) if solution is not None else ()

    @property
    def breaks(self) -> tuple[Break, ...]:
        """What the plan breaks with this dish, where no plan keeps every rule."""
        return tuple(each for each in self.whole.breaks if each.dish == self.key)

    @property
    def has_no_room(self) -> bool:
        """Whether it has not been begun and no plan has room for it, or its hour has passed."""
        if self.state.begun or self.dish.is_given_up or self.is_discarded:
            return False
        if self.key not in self.whole.planned_dishes:
            return True
        is_solved = self.whole.solution is not None
        return is_solved and (self.plan is None or self.plan.status == "infeasible")

    @cached_property
    def plan(self) -> Plan | None:
        """Its part of the feast's plan; None where it is not planned, or its hour has passed."""
        whole = self.whole.plan
        if whole is None or self.key not in self.whole.planned_dishes or self.why_left_out:
            return None
        own, rounds = self.whole.plan_by_dish.get(self.key, ((), ()))
        ahead = (each for each in own if each.step not in self.state.begun)
        latest = next((each.latest_start for each in ahead), None)
        return replace(whole, steps=own, rounds=rounds, latest_start=latest)

    def planned(self, key: str) -> PlannedStep | None:
        """The planned or past times of a step."""
        return self._planned.get(key)

    @cached_property
    def _planned(self) -> dict[str, PlannedStep]:
        return {each.step: each for each in self.plan.steps} if self.plan else {}

    def step(self, key: str) -> DishStep | None:
        """The step with this id."""
        return next((each for each in self.steps if each.id == key), None)

    def place_of(self, key: str) -> int:
        """Where a step stands among the others; -1 for none of them."""
        return next((i for i, each in enumerate(self.steps) if each.id == key), -1)


@dataclass(frozen=True, eq=False)
class FeastOutlook:
    """A feast at a moment: what was read of it, the plan that it goes by, and its dishes.

    `documents` are the `dish` documents with their times and what happened, `answers` what the core
    says to them: every page shows this.
    """

    read: FeastRead = field(repr=False)
    standing: Standing = field(repr=False)
    dishes: list[Outlook] = field(default_factory=list, repr=False)
    documents: dict[str, Document] = field(default_factory=dict, repr=False)
    answers: dict[str, Answer] = field(default_factory=dict, repr=False)

    @property
    def feast(self) -> Feast:
        """The feast as it is stored."""
        return self.read.feast

    @property
    def around(self) -> Surroundings:
        """The kitchen around it."""
        return self.read.around

    @property
    def kitchen(self) -> Kitchen:
        """Whose feast it is."""
        return self.around.kitchen

    @property
    def now(self) -> datetime:
        """The moment."""
        return self.around.now

    @property
    def house(self) -> House:
        """What of the kitchen bears on its dishes."""
        return self.around.house

    @property
    def mishaps(self) -> tuple[Mishap, ...]:
        """What befell the kitchen so far."""
        return self.around.mishaps

    @property
    def discarded(self) -> list[Outlook]:
        """Dishes that are to be thrown away."""
        return [each for each in self.dishes if each.is_discarded and not each.dish.is_given_up]

    @property
    def stopped(self) -> list[Outlook]:
        """Dishes that a stop holds back somewhere."""
        wanted = (each for each in self.dishes if not each.dish.is_given_up and each.answer)
        return [each for each in wanted if each.verdict == "stop" and not each.is_discarded]

    @property
    def lacks_some(self) -> bool:
        """Whether some dish will not be on the table."""
        return bool(self.left_out or self.discarded) or any(each.problems for each in self.dishes)

    @property
    def left_out(self) -> list[Outlook]:
        """Dishes that cannot be done: the others are planned without them."""
        return [each for each in self.dishes if each.why_left_out]

    @property
    def breaks(self) -> tuple[Break, ...]:
        """What the plan breaks, where no plan keeps every rule."""
        return self.solution.breaks if self.solution is not None else ()

    @property
    def why_not(self) -> tuple[str, ...]:
        """What stands against the plan, in few sentences."""
        return self.solution.why if self.solution is not None else ()

    @property
    def planned_dishes(self) -> frozenset[str]:
        """Ids of the dishes that are planned: wanted, with steps, their hour ahead."""
        return self.read.planned

    @property
    def is_begun(self) -> bool:
        """Whether something has been done for any dish."""
        return self.read.is_begun

    @property
    def has_several(self) -> bool:
        """Whether there is more than one dish."""
        return len(self.dishes) > 1

    @property
    def plan(self) -> Plan | None:
        """The plan of all dishes; None when nothing lies ahead, or it is being worked out."""
        return self.solution.plan if self.solution is not None else None

    @cached_property
    def plan_by_dish(self) -> dict[str, tuple[tuple[PlannedStep, ...], tuple[Round, ...]]]:
        """The planned steps and rounds of each dish, by its id."""
        return self.plan.by_dish() if self.plan else {}

    @cached_property
    def apart(self) -> dict[str, list[PlannedStep]]:
        """How what cannot be would be, each dish by itself, by the ids of dishes."""
        found: dict[str, list[PlannedStep]] = {}
        for each in self.solution.apart if self.solution is not None else ():
            found.setdefault(each.dish, []).append(each)
        return found

    @property
    def against(self) -> dict[tuple[str, str], Why | Break]:
        """What stands against steps, or is broken with them, by their dish and key."""
        if self.solution is None:
            return {}
        against: tuple[Why | Break, ...] = (*self.solution.against, *self.breaks)
        return {(each.dish, each.step): each for each in against}

    @property
    def is_proven(self) -> bool:
        """Whether the plan is not still looked into."""
        return self.solution is None or self.solution.is_proven

    @property
    def solution(self) -> Solved | None:
        """The plan; while it is worked out again, the one from before what changed last.

        None when nothing lies ahead, or there was never one.
        """
        return self.standing.solution

    @property
    def solving(self) -> Work | None:
        """The plan while it is being worked out."""
        return self.standing.work

    @property
    def is_from_before(self) -> bool:
        """Whether the plan is the one from before what changed last."""
        return self.standing.is_from_before

    @property
    def plan_documents(self) -> tuple[Document, Document]:
        """The `plan` document of the dishes that are planned, without holding and with it."""
        plan_question = self.standing.asked or question(self.read)
        return plan_question.document, plan_question.held

    def of(self, dish: Dish) -> Outlook:
        """The outlook of one of its dishes."""
        return next(each for each in self.dishes if each.dish.pk == dish.pk)


def outlook_on(read: FeastRead, standing: Standing) -> FeastOutlook:
    """A feast as every page shows it, from what was read of it and the plan that it goes by."""
    whole = FeastOutlook(read, standing)
    whole.dishes.extend(Outlook(each, whole) for each in read.dishes)
    unplanned = {each.key: each.document for each in read.dishes}
    for view in whole.dishes:
        planned = view.plan.steps if view.plan and not standing.is_from_before else ()
        whole.documents[view.key] = with_plan(view.read.document, planned)
    before = {each.key: each.answer for each in read.dishes}
    whole.answers.update(answered_anew(whole.documents, unplanned, before))
    return whole
