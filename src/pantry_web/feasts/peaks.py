"""How full each place gets by the plan, and when."""

from dataclasses import dataclass
from datetime import datetime

from pantry_web.feasts.planning import FeastOutlook

SHOWN = 0.5
"""Places that never hold more than this share of their room are not worth a word."""


@dataclass(frozen=True, slots=True)
class Peak:
    """The fullest moment of a place: its load of its room, which dishes share it, until when."""

    place: str
    load: float
    room: float
    at: datetime
    until: datetime
    dishes: tuple[str, ...]

    @property
    def unit(self) -> str:
        """What the numbers count."""
        return "l" if self.place == "fridge" else ""


def peaks(whole: FeastOutlook) -> list[Peak]:
    """Places in which several dishes lie at once at their fullest, the fullest first."""
    if whole.plan is None:
        return []
    stays: dict[str, list[tuple[datetime, datetime, float, str]]] = {}
    for view in whole.dishes:
        for planned in view.plan.steps if view.plan else ():
            step = view.step(planned.step)
            if step is not None and step.place and planned.end > max(planned.start, whole.now):
                begin = max(planned.start, whole.now)
                stay = (begin, planned.end, step.uses, view.dish.name)
                stays.setdefault(step.place, []).append(stay)
    rooms = {place.name: place.capacity for place in whole.kitchen.places.all()}
    found = [
        _fullest(place, here, rooms[place]) for place, here in stays.items() if rooms.get(place)
    ]
    told = [each for each in found if len(each.dishes) > 1 and each.load > SHOWN * each.room]
    return sorted(told, key=lambda each: -each.load / each.room)


def _fullest(place: str, stays: list[tuple[datetime, datetime, float, str]], room: float) -> Peak:
    moments = []
    for at, *_ in stays:
        inside = [each for each in stays if each[0] <= at < each[1]]
        load = sum(uses for _, _, uses, _ in inside)
        names = tuple(dict.fromkeys(name for *_, name in inside))
        moments.append(Peak(place, load, room, at, min(each[1] for each in inside), names))
    return max(moments, key=lambda each: each.load)
