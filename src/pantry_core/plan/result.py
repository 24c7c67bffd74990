"""What a plan answers."""

from dataclasses import dataclass, replace
from datetime import UTC, datetime, timedelta
from typing import Any, Literal

from pantry_core.plan.changes import Change
from pantry_core.text import Sentence

Status = Literal["optimal", "feasible", "infeasible", "unsettled"]
Reason = Literal[
    "too-late", "place-full", "asleep", "away", "hands-full", "locked", "shut", "work", "after",
    "trip",
]  # fmt: skip


@dataclass(frozen=True, slots=True)
class PlannedStep:
    """When a step happens, and how much later it could start, the others moving [h].

    Its words are given back as they were asked.
    """

    dish: str
    step: str
    start: datetime
    end: datetime
    slack_h: float
    title: Sentence | None = None
    text: Sentence | None = None
    tend: Sentence | None = None
    until: dict[str, float | bool] | None = None

    def in_utc(self) -> "PlannedStep":
        """The same with its instants in UTC."""
        return replace(self, start=self.start.astimezone(UTC), end=self.end.astimezone(UTC))

    @property
    def latest_start(self) -> datetime:
        """When it could start at the latest."""
        return self.start + timedelta(hours=self.slack_h)


@dataclass(frozen=True, slots=True)
class Job:
    """A step that wants a hand on a round."""

    dish: str
    step: str


@dataclass(frozen=True, slots=True)
class Round:
    """One visit."""

    at: datetime
    jobs: tuple[Job, ...]


@dataclass(frozen=True, slots=True)
class Why:
    """One of the few rules that cannot be kept together."""

    dish: str
    step: str
    reason: Reason
    text: Sentence


@dataclass(frozen=True, slots=True)
class PlanNotice:
    """Something about the plan that the cook must know."""

    level: Literal["caution", "note"]
    code: str
    text: Sentence
    basis: Sentence


@dataclass(frozen=True, slots=True)
class Remedy:
    """A change that helps: in words, as a whole `plan` document, solved, and by its kinds."""

    text: Sentence
    input: dict[str, Any]
    plan: "Plan"
    changes: tuple[Change, ...] = ()


BrokenRule = Literal["late", "early", "hands", "work", "left-out"]


@dataclass(frozen=True, slots=True)
class Break:
    """What a plan breaks: a rule at a step, by how much [min], and that in words."""

    dish: str
    step: str
    rule: BrokenRule
    by_min: float
    text: Sentence


@dataclass(frozen=True, slots=True)
class Plan:
    """A plan, or why there is none and what would help.

    Where there is none, `plan` is the one that breaks least and `breaks` says what, if it is asked.
    """

    status: Status
    gap: float | None = None
    steps: tuple[PlannedStep, ...] = ()
    rounds: tuple[Round, ...] = ()
    latest_start: datetime | None = None
    earliest_serve: datetime | None = None
    why: tuple[Why, ...] = ()
    remedies: tuple[Remedy, ...] = ()
    notices: tuple[PlanNotice, ...] = ()
    plan: "Plan | None" = None
    breaks: tuple[Break, ...] = ()
    format: Literal["pantry-clock/1"] = "pantry-clock/1"

    def in_utc(self) -> "Plan":
        """The same plan with its instants in UTC; of remedies as they are."""

        def utc(moment: datetime | None) -> datetime | None:
            return None if moment is None else moment.astimezone(UTC)

        return replace(
            self,
            steps=tuple(each.in_utc() for each in self.steps),
            rounds=tuple(replace(each, at=each.at.astimezone(UTC)) for each in self.rounds),
            latest_start=utc(self.latest_start),
            earliest_serve=utc(self.earliest_serve),
        )

    def by_dish(self) -> dict[str, tuple[tuple[PlannedStep, ...], tuple[Round, ...]]]:
        """The steps and the rounds of each dish, by its id; a round with the jobs of that dish."""
        steps: dict[str, list[PlannedStep]] = {}
        rounds: dict[str, dict[datetime, list[Job]]] = {}
        for each in self.steps:
            steps.setdefault(each.dish, []).append(each)
        for visit in self.rounds:
            for job in visit.jobs:
                rounds.setdefault(job.dish, {}).setdefault(visit.at, []).append(job)
        return {
            dish: (
                tuple(own),
                tuple(Round(at, tuple(jobs)) for at, jobs in rounds.get(dish, {}).items()),
            )
            for dish, own in steps.items()
        }
