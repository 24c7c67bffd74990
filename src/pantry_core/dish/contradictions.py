"""Facts that cannot all be true."""

from collections.abc import Iterator, Sequence

from pantry_core.dish.answer import DishStep
from pantry_core.dish.clock import Clock, WrongDish
from pantry_core.history.log import Happened
from pantry_core.text import Sentence


def refuse_contradictions(steps: Sequence[DishStep], clock: Clock) -> None:
    """Refuse facts that contradict each other.

    Parameters: steps as they are edited; clock, with the facts in the order of the document.
    Raises: WrongDish with every fact that cannot be true beside an earlier one.
    """
    wrongs = tuple((f"facts.{i}.at", what) for i, what in _wrongs(steps, clock.facts))
    if wrongs:
        raise WrongDish(wrongs)


def _wrongs(
    steps: Sequence[DishStep], facts: Sequence[Happened | None]
) -> Iterator[tuple[int, Sentence]]:
    happened = [each for each in facts if each is not None]
    put_in = min((each.at for each in happened if each.what == "put-in"), default=None)
    last = steps[-1].id if steps else ""
    eaten = min(
        (each.at for each in happened if each.what == "step-ended" and each.step == last),
        default=None,
    )
    began: dict[str, Happened] = {}
    for each in happened:
        if each.what == "step-started" and (
            each.step not in began or each.at < began[each.step].at
        ):
            began[each.step] = each
    ids = {each.id for each in steps[:-1]}
    for i, fact in enumerate(facts):
        if fact is None:
            continue
        if fact.what == "lifted" and put_in is not None and fact.at < put_in:
            yield i, "it was lifted before it went in; give the later hour"
        elif fact.what == "step-ended" and fact.step in began and fact.at < began[fact.step].at:
            yield i, "the step ended before it began; give the later hour"
        elif fact.step in ids and eaten is not None and fact.at > eaten:
            yield i, "it had been eaten by then; give the earlier hour"
