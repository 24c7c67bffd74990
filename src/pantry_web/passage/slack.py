"""How much later things could start, and how long the piece stays raw by the plan."""

from dataclasses import dataclass

from pantry_core.mixes.keeping import judge_raw
from pantry_core.notice import Notice
from pantry_core.plan.result import PlannedStep
from pantry_web.feasts.planning import Outlook
from pantry_web.quantities import hours_of

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
        if step is not None and step.hands_min and step.key not in view.state.begun:
            width = min(planned.slack_h / 24 * FULL_WIDTH, FULL_WIDTH)
            found.append(Slack(step.title, planned.slack_h, round(width, 1)))
    return found


def raw_notice(view: Outlook) -> Notice | None:
    """What the raw clock says of the plan as it stands."""
    if view.plan is None or not view.plan.steps or view.mixed is None:
        return None
    begun = [each.end for each in view.plan.steps if _kind(view, each) in ("buy", "thaw")]
    heat = [each.start for each in view.plan.steps if _kind(view, each) in ("cook", "carve")]
    raw_h = hours_of(min(heat) - max(begun)) if begun and heat else 0.0
    return judge_raw(view.mixed.route.raw, raw_h)


def _kind(view: Outlook, planned: PlannedStep) -> str:
    step = view.step(planned.step)
    return step.kind if step else ""
