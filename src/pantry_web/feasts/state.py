"""What is going on now, derived from the log."""

from collections.abc import Iterable
from dataclasses import dataclass, field
from datetime import datetime
from functools import cached_property
from uuid import UUID

from pantry_core.history.log import Happened, Log, log_of
from pantry_web.feasts.models import Event

NOT_OF_THE_MEAT = (
    Event.What.LINE_WEIGHED, Event.What.NOTED, Event.What.PUT_OFF, Event.What.WITHDRAWN
)  # fmt: skip
"""What is written down and is nothing that happened to the piece."""


@dataclass(slots=True)
class StepFacts:
    """What has happened of one step; it, or its next round, may be put off."""

    started_at: datetime | None = None
    ended_at: datetime | None = None
    rounds_done: list[datetime] = field(default_factory=list)
    put_off_until: datetime | None = None


@dataclass(frozen=True)
class DishState:
    """The facts of a dish by step key, and the events that stand, in order."""

    facts: dict[str, StepFacts]
    events: tuple[Event, ...]

    @property
    def put_in(self) -> Event | None:
        """The event with which the piece went in."""
        return next((each for each in self.events if each.what == Event.What.PUT_IN), None)

    @property
    def weighed_lines(self) -> dict[str, float]:
        """What was really weighed of each line of the sheet, the last time it was [g]."""
        return {
            each.line: each.mass_g
            for each in self.events
            if each.what == Event.What.LINE_WEIGHED and each.mass_g is not None
        }

    @cached_property
    def begun(self) -> frozenset[str]:
        """Keys of the steps that have started or ended."""
        return frozenset(
            key for key, fact in self.facts.items() if fact.started_at or fact.ended_at
        )

    @property
    def running(self) -> str | None:
        """Key of the step that runs now."""
        open_steps = [
            key for key, fact in self.facts.items() if fact.started_at and not fact.ended_at
        ]
        return open_steps[-1] if open_steps else None

    @property
    def running_since(self) -> datetime | None:
        """When the step that runs now started."""
        return self.facts[self.running].started_at if self.running else None

    @property
    def last_batch(self) -> UUID | None:
        """What an undo takes back."""
        by_hand = (each for each in reversed(self.events) if not each.is_by_a_device)
        return next((each.batch for each in by_hand), None)

    @property
    def last_weighed(self) -> UUID | None:
        """The batch of the line of the sheet that was weighed last, while it can be taken back."""
        weighed = [each.batch for each in self.events if each.what == Event.What.LINE_WEIGHED]
        return weighed[-1] if weighed and self.put_in is None else None

    def can_take_back(self, batch: UUID) -> bool:
        """Whether nothing hangs on what a press wrote down: the last, or a weight for the sheet."""
        return batch in (self.last_batch, self.last_weighed)

    def latest_fact(self) -> datetime | None:
        """The latest moment at which a step started or ended."""
        moments = [
            moment
            for fact in self.facts.values()
            for moment in (fact.started_at, fact.ended_at)
            if moment is not None
        ]
        return max(moments, default=None)


def log_from(state: DishState, now: datetime) -> Log:
    """What happened to a dish, as the core reads it."""
    return log_of(
        [
            Happened(
                each.what,  # type: ignore[arg-type]  # the database holds kinds
                each.at,
                each.step_key,
                each.mass_g,
                each.temperature_c,
                each.taste or None,  # type: ignore[arg-type]  # and tastes
                each.touch or None,
                **(each.heat or {}),
            )
            for each in state.events
            if each.what not in NOT_OF_THE_MEAT
        ],
        now,
    )


def derive(events: Iterable[Event], now: datetime | None = None) -> DishState:
    """Derive the state, at a moment if given: withdrawn batches and later events are left out."""
    known = [event for event in events if now is None or event.at <= now]
    withdrawn = {event.withdraws for event in known if event.what == Event.What.WITHDRAWN}
    standing = tuple(
        event
        for event in known
        if event.what != Event.What.WITHDRAWN and event.batch not in withdrawn
    )
    facts: dict[str, StepFacts] = {}
    for event in standing:
        fact = facts.setdefault(event.step_key, StepFacts()) if event.step_key else StepFacts()
        if event.what == Event.What.STEP_STARTED:
            fact.started_at, fact.put_off_until = event.at, None
        elif event.what == Event.What.STEP_ENDED:
            fact.ended_at = event.at
        elif event.what == Event.What.TURNED:
            fact.rounds_done.append(event.at)
            fact.put_off_until = None
        elif event.what == Event.What.PUT_OFF:
            is_over = now is not None and event.until is not None and event.until <= now
            fact.put_off_until = None if is_over else event.until
    return DishState(facts, standing)
