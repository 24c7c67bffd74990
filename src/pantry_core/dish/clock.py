"""The moments of a dish: now, the table, what was planned, what happened."""

from collections.abc import Sequence
from datetime import UTC, datetime
from zoneinfo import ZoneInfo

from pantry_core.dish.answer import DishStep, RawTime
from pantry_core.dish.curing import Settled
from pantry_core.dish.request import DishRequest, Fact
from pantry_core.history.log import Happened, Log, hours_between, log_of
from pantry_core.plan.instants import NotAnInstant, read_instant, read_zone
from pantry_core.routes.steps import RAW_KINDS


class WrongDish(ValueError):
    """A dish that cannot be worked out, with all that is wrong with it: where, what is allowed."""

    def __init__(self, wrongs: tuple[tuple[str, str], ...]) -> None:
        super().__init__("; ".join(f"{where}: {what}" for where, what in wrongs))
        self.wrongs = wrongs


class Clock:
    """The moments of a document: now, the table, what was planned, what happened."""

    def __init__(self, asked: DishRequest) -> None:
        self._wrongs: list[tuple[str, str]] = []
        self._zone: ZoneInfo | None = None
        if asked.tz is not None:
            try:
                self._zone = read_zone(asked.tz)
            except NotAnInstant as error:
                self._wrongs.append(("tz", str(error)))
        self.now = self._read("now", asked.now)
        self.serve_at = self._read("serve_at", asked.serve_at)
        self.planned = {
            each.step: (
                self._read(f"planned.{i}.start", each.start),
                self._read(f"planned.{i}.end", each.end),
            )
            for i, each in enumerate(asked.planned)
        }
        for i, edit in enumerate(asked.edits):
            self._read(f"edits.{i}.locked_start", edit.locked_start)
        happened = [self._happened(i, each) for i, each in enumerate(asked.facts)]
        if self._wrongs:
            raise WrongDish(tuple(self._wrongs))
        facts = [each for each in happened if each is not None]
        latest = max((each.at for each in facts), default=None)
        now = self.now or latest
        self.log: Log | None = log_of(facts, now) if facts and now is not None else None

    @property
    def left_h(self) -> float | None:
        """The time from now to the table, None where one of them is not known [h]."""
        if self.now is None or self.serve_at is None:
            return None
        return hours_between(self.now, self.serve_at)

    def local(self, moment: datetime) -> datetime:
        """A moment by the clocks of the dish's zone, of UTC where it has none."""
        return moment.astimezone(self._zone or UTC)

    def _happened(self, i: int, fact: Fact) -> Happened | None:
        at = self._read(f"facts.{i}.at", fact.at)
        if at is None:
            return None
        return Happened(
            fact.what, at, fact.step or "", fact.mass_g, fact.temperature_c, fact.taste, fact.touch,
            fact.kind, fact.hours, fact.medium, fact.covered, fact.halved,
        )  # fmt: skip

    def _read(self, where: str, text: str | None) -> datetime | None:
        if text is None:
            return None
        try:
            moment = datetime.fromisoformat(text)
        except ValueError:
            moment = None
        if moment is not None and moment.tzinfo is None and self._zone is None:
            self._wrongs.append((where, "a local time needs the zone in tz; use an offset"))
            return None
        try:
            return read_instant(text, self._zone or ZoneInfo("UTC")).astimezone(UTC)
        except NotAnInstant as error:
            self._wrongs.append((where, str(error)))
            return None


def raw_time(steps: Sequence[DishStep], settled: Settled, clock: Clock) -> RawTime | None:
    """How long it stays raw: by the shortest way through the steps, and by the real hours."""
    if settled.judged.raw is None:
        return None
    least_h = sum(each.min_h for each in steps if each.kind in RAW_KINDS)
    vacuum = settled.piece.asked.bought.vacuum
    return RawTime(least_h, _real_raw_h(steps, clock, from_opening=vacuum))


def _real_raw_h(steps: Sequence[DishStep], clock: Clock, *, from_opening: bool) -> float | None:
    """From the shop, from the end of thawing, or from the opening of its pack, to the heat [h].

    Where none of these is known it counts from the moment it went in; what is not at the heat yet
    is raw until it is planned to be, or until now.
    """
    bought = [each.id for each in steps if each.kind in ("buy", "thaw")]
    ahead = [each.id for each in steps if each.kind in ("cook", "carve")]
    begins = [moment for step in bought if (moment := _ended(step, clock)) is not None]
    if from_opening:
        opened = next((each.id for each in steps if each.kind == "trim"), "")
        moment = _started(opened, clock)
        begins = [] if moment is None else [moment]
    if not begins and clock.log is not None and clock.log.put_in is not None:
        begins = [clock.log.put_in]  # raw for as long as this at least
    heats = [moment for step in ahead if (moment := _started(step, clock)) is not None]
    is_hot = clock.log is not None and any(clock.log.has_begun(step) for step in ahead)
    if clock.log is not None and not is_hot:
        heats = [max([clock.log.now, *heats])]  # a plan that has passed by does not cook it
    if not begins or not heats:
        return None
    return max(hours_between(max(begins), min(heats)), 0.0)


def _ended(step: str, clock: Clock) -> datetime | None:
    fact = clock.log.last("step-ended", step) if clock.log else None
    if fact is not None:
        return fact.at
    planned = clock.planned.get(step)
    return planned[1] if planned else None


def _started(step: str, clock: Clock) -> datetime | None:
    fact = clock.log.first("step-started", step) if clock.log else None
    if fact is not None:
        return fact.at
    planned = clock.planned.get(step)
    return planned[0] if planned else None
