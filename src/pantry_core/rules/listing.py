"""Every rule there is, for the pages that list them."""

from collections.abc import Iterator
from types import ModuleType

from pantry_core.rules import constants, cures, inside, profiles, raw_clock, smoke
from pantry_core.rules.ingredients import INGREDIENTS, SALT_PER_SODIUM, SODIUM
from pantry_core.rules.profiles import PROFILES
from pantry_core.rules.raw_clock import RawLimits
from pantry_core.rules.rule import Rule


def rules_in(*modules: ModuleType) -> tuple[Rule, ...]:
    """The rules of some modules, each once, in the order they are written.

    Parameters: modules that hold rules, tables of rules, or limits on keeping raw.
    Returns: the rules.
    """
    found = (rule for module in modules for held in vars(module).values() for rule in _held(held))
    return tuple({rule.id: rule for rule in found}.values())


def all_rules() -> tuple[Rule, ...]:
    """The limits of the profiles, the raw clock, and what no profile changes."""
    limits = (
        rule
        for profile in PROFILES.values()
        for case in profile.nitrite.values()
        for rule in (case.most, case.enough, case.usual)
    )
    nitrate = (rule for profile in PROFILES.values() for rule in profile.nitrate.values())
    volumes = (each.g_per_ml for each in INGREDIENTS.values())
    others = (*limits, *nitrate, *volumes, *SODIUM.values(), SALT_PER_SODIUM)
    known = {rule.id: rule for rule in others if rule is not None}
    return (*known.values(), *rules_in(raw_clock, inside, smoke, constants, cures, profiles))


def table(rules: tuple[Rule, ...]) -> str:
    """The rules as a table in Markdown."""
    lines = [f"| {rule.id} | {rule.value:g} | {rule.unit} | {rule.basis} |" for rule in rules]
    return "\n".join(("| rule | value | unit | basis |", "|---|---|---|---|", *lines, ""))


def _held(held: object) -> Iterator[Rule]:
    if isinstance(held, Rule):
        yield held
    elif isinstance(held, RawLimits):
        yield from (held.caution, held.stop)
    elif isinstance(held, dict):
        yield from (each for each in held.values() if isinstance(each, Rule))
