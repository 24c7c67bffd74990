"""The steps of a dish as its page shows them: done, now, to come, each changed in place."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Literal

from django.forms import BaseForm
from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.utils.translation import gettext_lazy as _

from pantry_core.dish.answer import DishStep
from pantry_core.history.log import hours_between
from pantry_core.plan.result import PlannedStep
from pantry_core.text import joined
from pantry_web.feasts.documents import Document, dish_document
from pantry_web.planning.answers import Broken, work_out
from pantry_web.planning.changes import changes
from pantry_web.planning.hands import Task, gate_now, left_min, look_again_at, lost_waits, tasks
from pantry_web.planning.happenings import happenings
from pantry_web.planning.outlook import Outlook
from pantry_web.steps.forms import (
    DishHourForm,
    KeepRouteForm,
    OwnStepForm,
    StepForm,
    Waited,
    step_as_it_is,
)
from pantry_web.steps.note_form import NoteForm
from pantry_web.steps.salt_now import salt_context

STATE_NAMES = {
    "frozen": _("frozen"), "raw": _("raw"), "curing": _("in its cure"), "hot": _("at the heat"),
    "cooked": _("cooked, cooling"), "cold": _("cooked, cold"),
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class StepRow:
    """A step in the list, or a round of the step that runs; `form` where it is being changed.

    `task` is what the hands have to do of it, None where there is nothing or it is done; `lies` the
    cook's own words for how long it lies.
    """

    standing: Literal["done", "now", "to-come"]
    step: DishStep | None
    task: Task | None
    planned: PlannedStep | None = None
    edit: Document | None = None
    is_withheld: bool = False
    noted: Sequence[str] = ()
    form: StepForm | None = None
    lies: str = ""

    @property
    def begun(self) -> bool:
        """Whether its past stays as it was."""
        return self.standing != "to-come"

    @property
    def is_own(self) -> bool:
        """Whether the cook added it."""
        return bool(self.edit and self.edit.get("own"))

    @property
    def lasts_h(self) -> float | None:
        """How long it is planned to last [h]; None where it is not planned."""
        if self.planned is None or self.planned.start >= self.planned.end:
            return None
        return hours_between(self.planned.start, self.planned.end)

    @property
    def at(self) -> datetime | None:
        """When it begins, or is due."""
        if self.planned is not None:
            return self.planned.start
        return None if self.task is None else self.task.at


def steps_page(
    request: HttpRequest, view: Outlook, form: BaseForm | None = None, *, bad: str = "",
    note: NoteForm | None = None,
) -> HttpResponse:  # fmt: skip
    """The page of a dish's steps.

    Parameters: request; view of the dish; form that was refused, and bad, the step or the part of
    the page that it belongs to; note, what was written down and refused.
    """
    dish, shown = view.dish, request.GET.get("step", "")
    edits: dict[str, Document] = {each["step"]: each for each in dish.document.get("edits", [])}
    left = tasks(view)
    present = {step.id for step in view.steps}
    hour_now = {name: getattr(dish, name) for name in ("serve_at", "early_max_min", "note")}
    forms = {bad: form} if form is not None else {}
    rows = _rows(view, left, edits, {shown: None, **forms})
    context = {
        "outlook": view, "dish": dish, "feast": dish.feast, "bad": bad, "shown": bad or shown,
        "first": left[0] if left else None,
        **gate_context(view),
        "rows": [row for row in rows if row.standing != "done"],
        "done": [row for row in rows if row.standing == "done"],
        "log": list(happenings(view)),
        "changes": changes(view.whole),
        **salt_context(view),
        "note_form": note or NoteForm(units=view.kitchen.units),
        "lost_waits": lost_waits(view),
        "history": _history(view),
        "absent": _absent(view, [edit for step, edit in edits.items() if step not in present]),
        "own_form": forms.get("own") or OwnStepForm(
            dish=dish, others=others(view), steps=list(view.steps), prefix="own"
        ),
        "hour_form": forms.get("hour") or DishHourForm(
            dish=dish, prefix="hour", initial=hour_now
        ),
        "keep_form": forms.get("keep") or KeepRouteForm(
            prefix="keep", initial={"name": dish.name}
        ),
        "routes": view.kitchen.routes.all(),
    }  # fmt: skip
    return render(request, "steps/steps.html", context, status=422 if bad or note else 200)


def _rows(
    view: Outlook, left: Sequence[Task], edits: dict[str, Document], shown: dict[str, object]
) -> list[StepRow]:
    """All steps in their order, the rounds that are due among them by their hours."""
    begins = {task.key: task for task in left if task.kind == "begin"}
    rounds = [task for task in left if task.kind == "tend"]
    rows: list[StepRow] = []
    cure = view.dish.cure
    for step in view.steps:
        planned = view.planned(step.id)
        begun = step.id in view.state.begun
        while not begun and planned and rounds and rounds[0].at and rounds[0].at < planned.start:
            rows.append(StepRow("to-come", None, rounds.pop(0)))
        form = None
        if step.id in shown and not begun:
            refused = shown[step.id]
            form = refused if isinstance(refused, StepForm) else step_form(view, step)
        rows.append(
            StepRow(
                "now" if step.id == view.state.running else "done" if begun else "to-come",
                step, begins.get(step.id), planned, edits.get(step.id),
                bool(view.withheld(step.id)), view.noted(step.id), form,
                cure.get("lies") or "" if step.kind == cure.get("method") else "",
            )
        )  # fmt: skip
    return rows + [StepRow("to-come", None, task) for task in rounds]


def gate_context(view: Outlook) -> dict[str, object]:
    """What the piece of a page needs that asks whether a dish is done, or cold."""
    return {
        "gate": gate_now(view),
        "look_again": look_again_at(view),
        "left": left_min(view),
        "feast": view.dish.feast,
    }


def _absent(view: Outlook, edits: list[Document]) -> list[Document]:
    """The changes of steps that are not there: removed by the cook, or gone from the route."""
    names = {step.id: step.title for step in by_route(view)} if edits else {}
    return [
        {
            "step": edit["step"],
            "title": edit.get("title") or names.get(edit["step"], edit["step"]),
            "removed": edit.get("removed", False),
        }
        for edit in edits
    ]


def by_route(view: Outlook) -> tuple[DishStep, ...]:
    """The steps without the cook's changes."""
    decided = {name: part for name, part in view.dish.document.items() if name != "edits"}
    answer = work_out(dish_document(decided, view.whole.house, view.dish.vessel))
    return () if isinstance(answer, Broken) else answer.steps


def step_form(view: Outlook, step: DishStep, request: HttpRequest | None = None) -> StepForm:
    """The form of one step, with what was typed."""
    typed = request.POST if request else None
    return StepForm(
        typed, dish=view.dish, others=others(view), prefix=step.id, initial=step_as_it_is(step)
    )


def others(view: Outlook) -> list[Waited]:
    """The steps of the other dishes, which one of this dish can wait for."""
    return [
        Waited(other.key, step.id, joined(": ", (other.dish.name, step.title)))
        for other in view.whole.dishes
        if other is not view and not other.dish.is_given_up and not other.is_discarded
        for step in other.steps
    ]


def _history(view: Outlook) -> list[dict[str, object]]:
    """What happens to the piece, each stay with the title of its step."""
    titles = {step.id: step.title for step in view.steps}
    return [
        {"stay": stay, "title": titles.get(stay.step or ""), "state": STATE_NAMES[stay.state]}
        for stay in (view.answer.history if view.answer is not None else ())
        if stay.hours > 0
    ]
