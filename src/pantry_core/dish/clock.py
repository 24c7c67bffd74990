"""The moments of a dish: now, the table, what was planned, what happened."""

from datetime import UTC, datetime
from zoneinfo import ZoneInfo

from pantry_core.dish.request import DishRequest, Fact
from pantry_core.history.log import Happened, Log, hours_between, log_of
from pantry_core.plan.instants import NotAnInstant, read_instant, read_zone


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
        self.facts = happened
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
