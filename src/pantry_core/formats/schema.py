"""JSON Schemas of the documents, generated from the models that validate and answer them."""

import json
import sys
from pathlib import Path
from typing import Any

from pydantic import TypeAdapter

from pantry_core.dish.answer import DishOut
from pantry_core.dish.heating import HeatAnswer, HeatRequest
from pantry_core.dish.request import DishRequest
from pantry_core.formats.feast import FeastDocument
from pantry_core.formats.feast_1 import OlderFeast
from pantry_core.formats.kitchen import KitchenDocument
from pantry_core.heat.chill import ChillAnswer, ChillRequest
from pantry_core.mixes.check import CheckOut
from pantry_core.mixes.recipe import CheckRequest
from pantry_core.mixes.request import WeighRequest
from pantry_core.mixes.result import WeighOut
from pantry_core.plan.request import PlanRequest
from pantry_core.plan.result import Plan
from pantry_core.recipes.read import ReadOut, ReadRequest
from pantry_core.salt.request import SaltRequest
from pantry_core.salt.travel import SaltAnswer
from pantry_core.vessels.fit import FitAnswer, FitRequest


def schemas() -> dict[str, dict[str, Any]]:
    """The schemas by the name of their file, less its ending."""
    return {
        "weigh-request": WeighRequest.model_json_schema(),
        "weigh-answer": TypeAdapter(WeighOut).json_schema(mode="serialization"),
        "check-request": CheckRequest.model_json_schema(),
        "check-answer": TypeAdapter(CheckOut).json_schema(mode="serialization"),
        "dish-request": DishRequest.model_json_schema(),
        "dish-answer": TypeAdapter(DishOut).json_schema(mode="serialization"),
        "read-request": ReadRequest.model_json_schema(),
        "read-answer": TypeAdapter(ReadOut).json_schema(mode="serialization"),
        "heat-request": HeatRequest.model_json_schema(),
        "heat-answer": TypeAdapter(HeatAnswer).json_schema(mode="serialization"),
        "salt-request": SaltRequest.model_json_schema(),
        "salt-answer": TypeAdapter(SaltAnswer).json_schema(mode="serialization"),
        "chill-request": ChillRequest.model_json_schema(),
        "chill-answer": TypeAdapter(ChillAnswer).json_schema(mode="serialization"),
        "fit-request": FitRequest.model_json_schema(),
        "fit-answer": TypeAdapter(FitAnswer).json_schema(mode="serialization"),
        "plan-request": PlanRequest.model_json_schema(),
        "feast": FeastDocument.model_json_schema(),
        "kitchen": KitchenDocument.model_json_schema(),
        "feast-1": OlderFeast.model_json_schema(),
        "plan-answer": TypeAdapter(Plan).json_schema(mode="serialization"),
    }


def write(folder: Path) -> None:
    """Write every schema into a folder."""
    folder.mkdir(parents=True, exist_ok=True)
    for name, schema in schemas().items():
        (folder / f"{name}.json").write_text(f"{json.dumps(schema, indent=2)}\n")


if __name__ == "__main__":
    write(Path(sys.argv[1]))
