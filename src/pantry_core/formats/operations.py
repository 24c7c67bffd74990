"""The operations of the open interface: one JSON document in, one out."""

import json
from collections.abc import Callable, Mapping
from functools import cache
from typing import Any

from pydantic import TypeAdapter, ValidationError

from pantry_core.dish.check_proposals import check_with_offers
from pantry_core.dish.clock import WrongDish
from pantry_core.dish.heating import HeatRequest, WrongHeat, heat
from pantry_core.dish.request import DishRequest
from pantry_core.dish.work import dish
from pantry_core.errors import OutOfRange
from pantry_core.formats.reading import (
    Problem,
    WrongInput,
    parse_json,
    problem_of,
    read_document,
)
from pantry_core.heat.chill import ChillRequest, chill
from pantry_core.mixes.cautions import geometry
from pantry_core.mixes.recipe import CheckRequest
from pantry_core.mixes.request import WeighRequest
from pantry_core.mixes.result import WeighOut
from pantry_core.mixes.weigh import weigh
from pantry_core.notice import Notice
from pantry_core.plan.problem import WrongPlan
from pantry_core.plan.request import PlanRequest
from pantry_core.plan.wrongs import raw_wrongs
from pantry_core.recipes.found import NotARecipe
from pantry_core.recipes.read import ReadRequest, read
from pantry_core.salt.request import SaltRequest
from pantry_core.salt.travel import travel
from pantry_core.text import either, say
from pantry_core.vessels.fit import FitRequest, fit

OPERATIONS = ("weigh", "check", "read", "dish", "heat", "salt", "chill", "fit", "plan")
WORDS = ("title", "text", "tend", "until")
"""What a plan gives back of a step as it was asked."""

Answer = dict[str, Any]


def weigh_document(raw: object) -> Answer:
    """Answer a `weigh` document.

    Parameters: raw, JSON data.
    Returns: the answer as JSON data; units as in the document format.
    Raises: WrongInput with everything that is wrong.
    """
    return weigh_answer(weigh(read_document(WeighRequest, raw)))


def weigh_answer(sheet: WeighOut) -> Answer:
    """A sheet as the JSON data of a `weigh` answer."""
    return _as_data(sheet)


def kept_sheet(sheet: WeighOut) -> dict[str, Any]:
    """A sheet as it is kept: as the JSON data of a `weigh` answer, its sentences whole."""
    data: dict[str, Any] = _adapter(WeighOut).dump_python(sheet)
    return data


def weigh_out_from(answer: Mapping[str, Any]) -> WeighOut:
    """The sheet in the JSON data of a `weigh` answer, in every shape in which it was ever kept.

    Parameters: answer; the first sheets had a school's days in the place of the model's, without a
    band: those are left out.
    Returns: the sheet; masses [g], shares [%], nitrite [mg/kg].
    Raises: pydantic.ValidationError for what is no sheet.
    """
    ready = answer.get("ready")
    if isinstance(ready, Mapping) and ready.get("days_low") is None:
        answer = {**answer, "ready": None}
    sheet: WeighOut = _adapter(WeighOut).validate_python(answer)
    return sheet


def check_document(raw: object) -> Answer:
    """Answer a `check` document: a recipe as it was found.

    Parameters: raw, JSON data.
    Returns: the answer as JSON data; masses [g], shares [%], nitrite [mg/kg].
    Raises: WrongInput with everything that is wrong.
    """
    return _as_data(check_with_offers(read_document(CheckRequest, raw)))


def read_recipe_document(raw: object) -> Answer:
    """Answer a `read` document: a recipe as people write it.

    Parameters: raw, JSON data.
    Returns: the answer as JSON data; what each line means, or what is asked about it.
    Raises: WrongInput with everything that is wrong.
    """
    request = read_document(ReadRequest, raw)
    try:
        return _as_data(read(request))
    except NotARecipe as error:
        raise WrongInput((Problem("text", str(error)),)) from None


def salt_document(raw: object) -> Answer:
    """Answer a `salt` document.

    Parameters: raw, JSON data.
    Returns: the answer as JSON data; salt of the meat [%], hours; with notices on the piece.
    Raises: WrongInput with everything that is wrong.
    """
    request = read_document(SaltRequest, raw)
    notices = _adapter(tuple[Notice, ...]).dump_python(tuple(geometry(request.meat)), mode="json")
    return _as_data(travel(request)) | {"notices": notices}


def chill_document(raw: object) -> Answer:
    """Answer a `chill` document.

    Parameters: raw, JSON data.
    Returns: the answer as JSON data; temperature [°C], ice [g].
    Raises: WrongInput with everything that is wrong.
    """
    return _as_data(chill(read_document(ChillRequest, raw)))


def fit_document(raw: object) -> Answer:
    """Answer a `fit` document.

    Parameters: raw, JSON data.
    Returns: the answer as JSON data; lengths [mm], volumes [ml], fridge room [l].
    Raises: WrongInput with everything that is wrong.
    """
    return _as_data(fit(read_document(FitRequest, raw)))


def plan_document(raw: object) -> Answer:
    """Answer a `plan` document.

    Parameters: raw, JSON data.
    Returns: the answer as JSON data; times ISO 8601 with their offset.
    Raises: WrongInput with everything that is wrong.
    """
    from pantry_core.plan.remedies import answer  # noqa: PLC0415 - the solver is slow to import

    wrongs = tuple(Problem(where, what) for where, what in raw_wrongs(raw))
    try:
        request = read_document(PlanRequest, raw)
    except WrongInput as error:
        raise WrongInput((*error.problems, *wrongs)) from None
    try:
        told = _as_data(answer(request.model_dump(mode="json", by_alias=True, exclude_unset=True)))
    except WrongPlan as error:
        raise WrongInput(tuple(Problem(*each) for each in error.wrongs)) from None
    words = {
        (dish.id, step.id): {name: getattr(step, name) for name in WORDS}
        for dish in request.dishes
        for step in dish.steps
    }
    inner = [remedy["plan"] for remedy in told["remedies"]]
    for plan in (told, *inner, *([told["plan"]] if told["plan"] else [])):
        for step in plan["steps"]:
            step.update(words[step["dish"], step["step"]])
    return told


def dish_document(raw: object) -> Answer:
    """Answer a `dish` document: one dish, worked out whole.

    Parameters: raw, JSON data.
    Returns: the answer as JSON data; units as in the document format.
    Raises: WrongInput with everything that is wrong.
    """
    request = read_document(DishRequest, raw)
    try:
        return _as_data(dish(request))
    except WrongDish as error:
        raise WrongInput(tuple(Problem(*each) for each in error.wrongs)) from None
    except OutOfRange as error:
        raise WrongInput((Problem("", str(error)),)) from None
    except ValidationError as error:
        raise WrongInput(tuple(problem_of(each) for each in error.errors())) from None


def heat_document(raw: object) -> Answer:
    """Answer a `heat` document: heat through a piece.

    Parameters: raw, JSON data.
    Returns: the answer as JSON data; temperatures [°C], hours.
    Raises: WrongInput with everything that is wrong.
    """
    request = read_document(HeatRequest, raw)
    try:
        return _as_data(heat(request))
    except WrongHeat as error:
        raise WrongInput(tuple(Problem(*each) for each in error.wrongs)) from None


def answer_text(operation: str, text: str | bytes) -> tuple[str, bool]:
    """Answer one document given as text.

    Parameters: operation, one of OPERATIONS; text, a JSON document.
    Returns: the answer or the error document as JSON on one line, and whether it was computed.
    Raises: nothing; what is wrong is in the error document.
    """
    try:
        raw = parse_json(text)
        return _line(_answering(operation)(raw)), True
    except WrongInput as error:
        problems = [{"where": each.where, "what": each.what} for each in error.problems]
        return _line({"errors": problems}), False


def _answering(operation: str) -> Callable[[object], Answer]:
    known: dict[str, Callable[[object], Answer]] = {
        "weigh": weigh_document,
        "check": check_document,
        "read": read_recipe_document,
        "dish": dish_document,
        "heat": heat_document,
        "salt": salt_document,
        "chill": chill_document,
        "fit": fit_document,
        "plan": plan_document,
    }
    if operation not in known:
        what = say("no such operation; use {operations}", operations=either(tuple(OPERATIONS)))
        raise WrongInput((Problem("op", what),))
    return known[operation]


def _line(document: object) -> str:
    return json.dumps(document, ensure_ascii=False, separators=(",", ":"), allow_nan=False)


def _as_data(answer: Any) -> Answer:
    """An answer of the core as JSON data."""
    kind: Any = type(answer)
    data: Answer = _adapter(kind).dump_python(answer, mode="json")
    return data


@cache
def _adapter(kind: type[Any]) -> TypeAdapter[Any]:
    return TypeAdapter(kind)
