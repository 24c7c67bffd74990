"""Which steps stand at the heat, by their names alone."""

from typing import Final

from pantry_core.routes.heats import HEATS
from pantry_core.routes.jobs import JOBS, job_route

_SOME_G: Final = 1000.0

HOT_STEPS: Final = frozenset(
    [stage.id for heat in HEATS.values()
     for stages in (heat.stages, heat.bird, heat.fish, heat.uncured)
     for stage in stages or () if stage.kind == "cook"]
    + [step.id for job in JOBS.values() for step in job_route(job, _SOME_G) if step.kind == "cook"]
)  # fmt: skip
"""Ids of the steps of all ways of cooking and of all side jobs that stand at the heat."""

HOT_PLACES: Final = frozenset(("oven", "smoker", "hob", "fire", "grill", "coals"))
"""Places that are hot."""
