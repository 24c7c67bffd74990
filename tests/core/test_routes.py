"""Routes of the methods, the raw clock, and the calendar made of them."""

import runpy
from datetime import UTC, datetime
from itertools import product
from pathlib import Path

import pytest
from icalendar import Calendar

from pantry_core.formats.calendar import Moment, calendar
from pantry_core.mixes.keeping import judge_raw
from pantry_core.routes.customs import CUSTOMS, USUAL, Customs
from pantry_core.routes.cuts import CUTS
from pantry_core.routes.schools import schooling
from pantry_core.routes.steps import PLACES
from pantry_core.routes.ways import WAYS
from pantry_core.rules import profiles
from pantry_core.rules.listing import all_rules
from pantry_core.rules.rule import Mark
from tests.core.routing import judged, way

DOCS = Path(__file__).parents[2] / "docs"


@pytest.mark.parametrize("cut", CUTS)
def test_every_route_can_be_walked(cut):
    for method, frozen in product(WAYS, (False, True)):
        _can_be_walked(way(cut, method, frozen=frozen, lift_h=30.0), frozen)


def _can_be_walked(found, frozen):
    ids = [step.id for step in found.steps]
    assert len(set(ids)) == len(ids)
    assert ids[0] == "buy"
    assert ids[-1] == "carve"
    assert ("thaw" in ids) == frozen
    for step in found.steps:
        wish = step.min_h if step.prefer_h is None else step.prefer_h
        assert 0 <= step.min_h <= wish <= step.max_h
        assert (step.prefer_h is None) == (step.kind in ("keep", "freeze"))  # waiting has no wish
        assert step.hands_min <= 60 * max(step.min_h, 0.25) + 14
        assert step.place is None or step.place in PLACES
        assert step.begin or not step.hands_min
        assert bool(step.tend) == bool(step.every_h)


def test_waits_by_the_schools():
    curing = {step.kind: step for step in (*way().steps, *way(method="dry-brine").steps)}
    assert curing["even-brine"].min_h == 14 * 24
    assert schooling(2000.0, 50.8, None).chosen("model") == 14  # two inches, a week an inch
    assert (curing["dry-brine"].min_h, curing["dry-brine"].max_h) == (12, 72)  # common practice
    assert curing["even-brine"].every_h == 24  # turned once a day: common practice


def test_every_custom_changes_its_step_and_says_what_it_gives_up():
    plain = {step.id: step for step in way("belly-skin").steps}
    other = Customs("stirred", "soak", "boiled", "early", "hour")
    changed = {step.id: step for step in way("belly-skin", customs=other).steps}
    assert "soak" in changed.keys() - plain.keys()
    assert changed["make-brine"].place == "counter" != plain["make-brine"].place
    assert "score" in changed["trim"].begin
    assert "boiled" in changed["lift"].begin
    assert changed["temper"].max_h == 1  # of the two hours above 4 °C: USDA (from memory)
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
        ("sauce-marinade", 2, 18), ("acid-marinade", 24, 168), ("dairy-marinade", 12, 24),
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
    ("cut", "method", "ppm", "salt", "form", "caution", "stop"),
    [
        # USDA cold storage and marinating advice (from memory), stretched by common practice
        ("chicken", "even-brine", 0, 2.0, "whole", 2, 5),
        ("chicken", "even-brine", 150, 2.0, "whole", 5, 7),
        ("chicken", "dry-brine", 0, 1.5, "whole", 3, 5),
        ("trout", "dry-brine", 0, 1.5, "whole", 3, 5),
        ("trout", "dry-brine", 0, 0.7, "whole", 2, 5),
        ("mackerel", "dry-brine", 0, 1.5, "whole", 1, 2),
        ("rabbit", "acid-marinade", 0, 1.0, "pieces", 2, 5),
        ("brisket", "dry-brine", 0, 2.0, "whole", 5, 10),
        ("brisket", "dry-cure", 0, 2.0, "ground", 2, 3),
        ("brisket", "dry-cure", 130, 2.0, "ground", 5, 7),
        ("gammon-flat", "even-brine", 150, 2.0, "whole", 21, 28),
        # 1 % of salt and 40 ppm taken up keep it a fortnight
        ("gammon-flat", "even-brine", 150, 1.9, "whole", 14, 21),
        ("gammon-flat", "even-brine", 90, 2.5, "whole", 14, 21),
        ("gammon-flat", "even-brine", 30, 2.5, "whole", 5, 10),
        # in a timed brine of 10 % it lies in more than 2 %
        ("gammon-flat", "strong-brine", 190, 1.6, "whole", 21, 28),
        ("venison", "dry-cure", 0, 2.5, "whole", 5, 10),
    ],
)  # fmt: skip
def test_raw_clock(cut, method, ppm, salt, form, caution, stop):
    limits = judged(cut, method, ppm=ppm, salt=salt, form=form).raw
    assert (limits.caution.value, limits.stop.value) == (caution, stop)
    assert judge_raw(limits, caution * 24) is None
    assert judge_raw(limits, caution * 24 + 1).level == "caution"
    assert judge_raw(limits, stop * 24 + 1).level == "stop"


@pytest.mark.parametrize(
    ("cut", "method", "said"),
    [
        # USDA, FDA Food Code 3-401.11 (from memory)
        ("pork-loin", "dry-brine", "63 °C"), ("pork-loin", "needle", "68 °C"),
        ("chicken", "needle", "74 °C"), ("rabbit", "acid-marinade", "71"),
        ("trout", "dry-brine", "63 °C"), ("brisket", "even-brine", "88 to 96 °C"),
    ],
)  # fmt: skip
def test_one_inside_temperature_in_route_and_sheet(cut, method, said):
    found = way(cut, method, wait_days=1.0, ppm=0)
    cooked = [step.begin for step in found.steps if step.kind == "cook"]
    assert said in cooked[-1]
    figure = f"{judged(cut, method, ppm=0).inside.value:g}"
    assert figure in cooked[-1]


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
