"""What has to be known before anything is done, the worst first."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Final, Literal

from pantry_web.planning.outlook import FeastOutlook, Outlook

Kind = Literal["discarded", "stopped", "left-out", "impossible", "breaks"]
ORDER: Final[tuple[Kind, ...]] = (
    "discarded", "stopped", "left-out", "impossible", "breaks",
)  # fmt: skip
"""What can hurt comes before what is late."""


@dataclass(frozen=True, slots=True)
class Alert:
    """Something of a feast, or of one of its dishes, that has to be known first."""

    kind: Kind
    whole: FeastOutlook
    view: Outlook | None = None


def alerts_of(wholes: Sequence[FeastOutlook]) -> list[Alert]:
    """All that has to be known first, the worst first."""
    return sorted(_alerts(wholes), key=lambda alert: ORDER.index(alert.kind))


def _alerts(wholes: Sequence[FeastOutlook]) -> Iterator[Alert]:
    for whole in wholes:
        yield from (Alert("discarded", whole, view) for view in whole.discarded)
        yield from (Alert("stopped", whole, view) for view in whole.stopped)
        yield from (Alert("left-out", whole, view) for view in whole.left_out)
        if not whole.left_out and whole.plan is not None and whole.plan.status == "infeasible":
            yield Alert("impossible", whole)
        if whole.breaks:
            yield Alert("breaks", whole)
