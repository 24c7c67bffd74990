"""Routes of the methods, the raw clock, and the calendar made of them."""

import runpy
from datetime import UTC, datetime
from pathlib import Path

import pytest
from icalendar import Calendar

from pantry_core.formats.calendar import Moment, calendar
from pantry_core.routes.customs import CUSTOMS, USUAL, Customs
from pantry_core.routes.cuts import CUTS
from pantry_core.routes.raw_clock import judge_raw, raw_limits
from pantry_core.routes.schools import schooling
from pantry_core.routes.steps import PLACES, route
from pantry_core.routes.ways import WAYS
from pantry_core.rules import profiles
from pantry_core.rules.listing import all_rules
from pantry_core.rules.rule import Mark

DOCS = Path(__file__).parents[2] / "docs"


def way(cut="gammon-flat", method="even-brine", **changes):
    asked = {"mass_g": 2000.0, "wait_days": 14.0, "verdict": "ok", "target_salt_pct": 2.0}
    return route(CUTS[cut], WAYS[method], **(asked | changes))


@pytest.mark.parametrize("cut", CUTS)
@pytest.mark.parametrize("method", WAYS)
@pytest.mark.parametrize("frozen", [False, True])
def test_every_route_can_be_walked(cut, method, frozen):
    found = way(cut, method, frozen=frozen, lift_h=30.0)
    ids = [step.id for step in found.steps]
    assert len(set(ids)) == len(ids)
    assert ids[0] == "buy"
    assert ids[-1] == "carve"
    assert ("thaw" in ids) == frozen
    for step in found.steps:
        assert 0 <= step.min_h <= step.prefer_h <= step.max_h
        assert step.hands_min <= 60 * max(step.min_h, 0.25) + 14
        assert step.place is None or step.place in PLACES
        assert step.begin or not step.hands_min
        assert bool(step.tend) == bool(step.every_h)


def test_waits_by_the_schools():
    curing = {step.kind: step for step in (*way().steps, *way(method="dry-brine").steps)}
    assert curing["even-brine"].min_h == 14 * 24
    assert schooling(2000.0, 50.8, None).chosen("model") == 14  # two inches, a week an inch
    assert (curing["dry-brine"].min_h, curing["dry-brine"].max_h) == (12, 72)  # common practice
    assert curing["even-brine"].every_h * 1.5 == 24  # turned once a day: common practice


def test_every_custom_changes_its_step_and_says_what_it_gives_up():
    plain = {step.id: step for step in way("belly-skin").steps}
    other = Customs("stirred", "soak", "boiled", "early", "hour")
    changed = {step.id: step for step in way("belly-skin", customs=other).steps}
    assert "soak" in changed.keys() - plain.keys()
    assert changed["make-brine"].place == "counter" != plain["make-brine"].place
    assert "score" in changed["trim"].begin
    assert "boiled" in changed["lift"].begin
    assert changed["temper"].max_h == 2  # two hours above 4 °C at the most: USDA (from memory)
    assert all(side.gives_up for custom in CUSTOMS for side in custom.choices)
    assert [USUAL.side(custom) for custom in CUSTOMS] == [each.choices[0] for each in CUSTOMS]


def test_what_must_come_out_on_time_comes_out_and_rests():
    steps = {step.id: step for step in way(method="strong-brine", lift_h=40.0, wait_days=4).steps}
    assert (steps["brine"].min_h, steps["brine"].max_h) == (36, 44)  # a tenth either way
    assert steps["rest"].min_h == 4 * 24 - 40


@pytest.mark.parametrize(
    ("name", "least", "most"),
    [
        # common practice: the table of methods
        ("sauce-marinade", 2, 24), ("acid-marinade", 24, 168), ("dairy-marinade", 12, 24),
        ("herb-marinade", 72, 96), ("dry-brine", 12, 72),
    ],
)  # fmt: skip
def test_windows_of_the_marinades(name, least, most):
    curing = {step.kind: step for step in way("brisket", name, wait_days=90).steps}[name]
    assert (curing.min_h, curing.max_h) == (least, most)


def test_thaws_as_the_department_advises():
    # 24 h for each 4 to 5 lb, USDA, The Big Thaw (from memory): 5 lb take 24 to 30 h
    thaw = {s.id: s for s in way(frozen=True, mass_g=5 * 453.59237).steps}["thaw"]
    assert 24 <= thaw.min_h <= 30
    assert {s.id: s for s in way(frozen=True, mass_g=200.0).steps}["thaw"].min_h == 12


@pytest.mark.parametrize(
    ("kind", "method", "verdict", "salt", "caution", "stop"),
    [
        # USDA cold storage and marinating advice (from memory), stretched by common practice
        ("poultry", "even-brine", "ok", 2.0, 2, 5), ("poultry", "dry-brine", "none", 1.5, 3, 5),
        ("fish", "dry-brine", "none", 1.5, 2, 5), ("beef", "dry-brine", "none", 2.0, 5, 10),
        ("pork", "even-brine", "ok", 2.0, 21, 28), ("pork", "even-brine", "ok", 1.9, 5, 10),
        ("pork", "even-brine", "low", 2.5, 5, 10), ("game", "dry-cure", "none", 2.5, 5, 10),
    ],
)  # fmt: skip
def test_raw_clock(kind, method, verdict, salt, caution, stop):
    limits = raw_limits(kind, method, verdict, salt)
    assert (limits.caution.value, limits.stop.value) == (caution, stop)
    assert judge_raw(limits, caution * 24) is None
    assert judge_raw(limits, caution * 24 + 1).level == "caution"
    assert judge_raw(limits, stop * 24 + 1).level == "stop"


def test_too_thick_for_its_raw_clock_is_a_stop():
    assert way().notice is None
    assert way(verdict="none").notice.level == "stop"
    assert way("chicken", wait_days=16.5).notice.level == "stop"
    assert way("vegetable", wait_days=41.0).notice is None


def test_rules_carry_their_sources_and_stand_in_the_docs():
    assert len(all_rules()) > 60
    for rule in all_rules():
        assert rule.source or rule.mark is Mark.PRACTICE, rule
    written = runpy.run_path(str(DOCS / "make_method.py"))["page"]()
    assert written == (DOCS / "method.md").read_text(), "run docs/make_method.py"
    for profile in profiles.PROFILES.values():
        for limits in profile.nitrite.values():
            assert limits.enough.value <= limits.usual.value <= limits.most.value


def test_calendar_keeps_moments_and_alarms():
    at = datetime(2027, 3, 22, 18, 15, tzinfo=UTC)
    moments = [
        Moment(f"{n}@test", at, 15, f"Carve, № {n}", "Across the grain; slowly") for n in (1, 2)
    ]
    book = Calendar.from_ical(calendar("Lantern Night", moments, at))
    entries = book.walk("VEVENT")
    assert [str(entry["UID"]) for entry in entries] == ["1@test", "2@test"]
    assert entries[0].decoded("DTSTART") == at
    assert len(book.walk("VALARM")) == 2
