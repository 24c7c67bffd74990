"""Every field with every kind of nonsense: a message beside it, what was typed stays, no 500."""

import pytest

NONSENSE = ["", "0", "-3", "letters", "1000000", "NaN", "inf", "1e400", "\u0000", "½½", "9" * 300]
DISH = {
    "name": "Loin", "cut": "pork-loin", "mass": "1.8 kg", "thickness": "50 mm", "water": "2 l",
    "method": "even-brine", "salt": "2.5", "sugar": "1", "bone": "0", "cure": "cure-1",
    "school": "week-an-inch", "ppm": "", "days": "", "count": "",
}  # fmt: skip
FEAST = {
    "name": "Plum Sunday", "date": "2027-05-02", "hour": "12:30", "time_zone": "Europe/London",
    "heads": "6",
}  # fmt: skip
HOUSE = {
    "name": "Quince Lane", "time_zone": "Europe/London", "units": "metric", "profile": "us",
    "cups": "us", "wake": "07:00", "sleep": "22:30", "cooks": "1",
}  # fmt: skip
MAY_BE = {
    ("dish", "salt", "0"), ("dish", "sugar", ""), ("dish", "sugar", "0"), ("dish", "bone", ""),
    ("dish", "bone", "0"), ("dish", "thickness", ""),
    ("dish", "ppm", ""), ("dish", "ppm", "0"), ("dish", "water", ""), ("dish", "salt", ""),
    ("dish", "days", ""), ("dish", "days", "0"), ("dish", "count", ""),
}  # fmt: skip
FREE_TEXT = {"name"}


def refused(client, path, typed, wrong):
    """Post, and check that a message stands beside each wrong field and every text is kept.

    Parameters: client; path; typed, what is right; wrong, what is typed instead, by field.
    """
    answer = client.post(path, typed | wrong)
    assert answer.status_code == 422, wrong
    form, page = answer.context["form"], answer.content.decode()
    for field in wrong:
        assert form.errors[field], (field, wrong)
        assert f'id="id_{field}-message"' in page
        assert form.errors[field][0].split("“")[0].split("'")[0][:20] in page
    for name, text in (typed | wrong).items():
        assert form[name].value() == text


@pytest.mark.parametrize("value", NONSENSE)
def test_dish(cook, roast, value):
    """Every field at once, then each field by itself as the answer is asked for while one types."""
    feast, dish, _ = roast
    wrong = {
        field: value
        for field in ("mass", "thickness", "water", "salt", "sugar", "bone", "ppm", "days", "count")
        if ("dish", field, value) not in MAY_BE
    }
    refused(cook, f"/dishes/{dish.pk}/mix/", DISH, wrong)
    for field in wrong:
        live = cook.post(f"/feasts/{feast.pk}/answer/", DISH | {field: value})
        assert live.status_code == 200
        assert b"Weigh out" not in live.content, field


@pytest.mark.parametrize(
    ("field", "value"),
    [
        ("name", "x" * 81),
        ("cut", "yak"),
        ("cut", ""),
        ("method", "magic"),
        ("method", ""),
    ],
)
def test_dish_choices(cook, roast, field, value):
    refused(cook, f"/dishes/{roast[1].pk}/mix/", DISH, {field: value})


@pytest.mark.parametrize(
    ("field", "value"),
    [
        *((field, value) for field in ("heads", "date", "hour") for value in NONSENSE),
        ("heads", "2.5"), ("name", ""), ("time_zone", "Moon/Tycho"),
        ("date", "2027-03-17"), ("date", "0001-01-01"), ("date", "2028-09-01"),
        ("date", "2027-02-30"),
    ],
)  # fmt: skip
def test_feast(cook, field, value):
    refused(cook, "/feasts/new/", FEAST, {field: value})


@pytest.mark.parametrize(
    ("changes", "field", "says"),
    [
        # the clocks go forward on 28 March 2027 at 01:00 in London
        ({"date": "2027-03-28", "hour": "01:30"}, "hour", "01:30 does not exist on 28 March 2027"),
        ({"date": "2027-03-18", "hour": "19:12"}, "hour", "This hour is over; it is 19:12 now."),
        ({"date": "2027-03-17"}, "date", "This day is over; today is Thursday 18 March."),
    ],
)
def test_hours_that_cannot_be(cook, changes, field, says):
    answer = cook.post("/feasts/new/", FEAST | changes)
    assert says in answer.context["form"].errors[field][0]


def test_an_hour_that_exists_twice_is_the_first(cook, quince):
    cook.post("/feasts/new/", FEAST | {"date": "2027-10-31", "hour": "01:30"})
    assert quince.feasts.get(name="Plum Sunday").serve_at.isoformat() == "2027-10-31T00:30:00+00:00"


@pytest.mark.parametrize(
    ("field", "value"),
    [
        *((field, value) for field in ("cooks",) for value in NONSENSE),
        ("wake", "25:00"), ("sleep", "06:00"), ("units", "stones"), ("profile", "mars"),
        ("time_zone", "x"), ("name", ""), ("cooks", "1.5"),
    ],
)  # fmt: skip
def test_house(cook, field, value):
    refused(cook, "/house/", HOUSE, {field: value})


@pytest.mark.parametrize(
    ("begins", "ends", "field"),
    [
        ("", "2027-03-20T10:00", "begins"), ("2027-03-28T01:30", "2027-03-29T10:00", "begins"),
        ("2027-03-20T10:00", "2027-03-20T09:00", "ends"), ("2027-03-20T10:00", "soon", "ends"),
    ],
)  # fmt: skip
def test_absences(cook, begins, ends, field):
    answer = cook.post("/house/away/", {"begins": begins, "ends": ends})
    assert answer.status_code == 422
    assert answer.context["absence_form"].errors[field]
    assert answer.context["absence_form"]["begins"].value() == begins


@pytest.mark.parametrize(
    ("typed", "field"),
    [
        ({}, "note"), ({"mass": "nan"}, "mass"), ({"mass": "0"}, "mass"),
        ({"temperature": "hot"}, "temperature"), ({"temperature": "400"}, "temperature"),
        ({"taste": "like more"}, "taste"), ({"note": "x" * 501}, "note"),
    ],
)  # fmt: skip
def test_notes(cook, gammon, typed, field):
    answer = cook.post(f"/dishes/{gammon.pk}/steps/note/", typed)
    assert answer.status_code == 422
    assert answer.context["note_form"].errors[field]


@pytest.mark.parametrize("value", ["", "yesterday", "2027-03-28T01:30"])
def test_the_demo_clock(cook, value):
    answer = cook.post("/house/clock/", {"stands_at": value})
    assert answer.status_code == 422
    assert answer.context["clock_form"].errors["stands_at"]
