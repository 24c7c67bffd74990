"""Named days, and time above 5 °C."""

from datetime import date

import pytest

from pantry_core.days.named import countries, named_days
from pantry_core.errors import OutOfRange
from pantry_core.heat.warm import hours_too_warm, judge_hours_too_warm


@pytest.mark.parametrize(
    ("day", "name"),
    [
        # tables of Easter in the Book of Common Prayer and of the Orthodox Church (from memory)
        (date(2024, 3, 31), "Easter Sunday"), (date(2025, 4, 20), "Easter Sunday"),
        (date(2027, 3, 28), "Easter Sunday"), (date(2027, 2, 9), "Shrove Tuesday"),
        (date(2027, 3, 7), "Mothering Sunday"), (date(2024, 5, 5), "Orthodox Easter Sunday"),
        (date(2027, 5, 6), "Ascension Day"),
        # Banking and Financial Dealings Act 1971: the last Monday of May
        (date(2027, 5, 31), "Spring Bank Holiday"),
    ],
)  # fmt: skip
def test_days_have_their_names(day, name):
    assert name in {each.name for each in named_days("GB", day, day)}


def test_days_come_in_order_each_name_once():
    days = named_days("NO", date(2027, 1, 1), date(2027, 12, 31))
    assert [each.day for each in days] == sorted(each.day for each in days)
    assert len({(each.day, each.name.lower()) for each in days}) == len(days)
    assert countries()["NO"] == "Norway"
    nowhere = named_days("", date(2027, 1, 1), date(2028, 1, 1))
    assert {each.kind for each in nowhere} == {"movable"}


@pytest.mark.parametrize(
    ("kind", "hours", "read_c", "counted", "level"),
    [
        # USDA (from memory): a closed fridge keeps 4 h; then 2 h, counted above 5 °C (Food Code
        # 3-501.16); 1 h above 32 °C
        ("power-out", 4.0, None, 0.0, None), ("power-out", 5.5, None, 1.5, "caution"),
        ("power-out", 6.0, None, 2.0, "caution"), ("power-out", 6.1, None, 2.1, "stop"),
        ("fridge-warm", 9.0, 4.8, 0.0, None), ("fridge-warm", 5.0, 7.0, 5.0, "stop"),
        ("left-out", 1.5, None, 1.5, "caution"), ("left-out", 1.5, 35.0, 1.5, "stop"),
        ("power-out", 9.0, 3.0, 0.0, None),
    ],
)  # fmt: skip
def test_time_too_warm(kind, hours, read_c, counted, level):
    found = hours_too_warm(kind, hours, read_c)
    assert found == pytest.approx(counted)
    judged = judge_hours_too_warm(found, is_hot=(read_c or 0) > 32)
    assert (judged and judged.level) == level


def test_no_absurd_time():
    with pytest.raises(OutOfRange):
        hours_too_warm("left-out", -1.0)
    with pytest.raises(OutOfRange):
        hours_too_warm("fridge-warm", 1.0, 400.0)
