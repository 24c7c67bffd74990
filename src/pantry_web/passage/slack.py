"""How much later things could start."""

from dataclasses import dataclass

from pantry_web.planning.outlook import Outlook

FULL_WIDTH = 280.0


@dataclass(frozen=True, slots=True)
class Slack:
    """Slack of a step that is still ahead [h], and the length of its bar, which a day fills."""

    title: str
    hours: float
    width: float


def slacks(view: Outlook) -> list[Slack]:
    """Slack of every step that waits for hands, in order."""
    if view.plan is None:
        return []
    found = []
    for planned in view.plan.steps:
        step = view.step(planned.step)
        if step is not None and step.hands_min and step.id not in view.state.begun:
            width = min(planned.slack_h / 24 * FULL_WIDTH, FULL_WIDTH)
            found.append(Slack(step.title, planned.slack_h, round(width, 1)))
    return found
