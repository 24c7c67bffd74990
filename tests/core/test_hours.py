"""Hours of shop and work, trips, dishes that wait for dishes, lateness: each counted by hand."""

import copy

import pytest

from pantry_core.dish.request import DishRequest
from pantry_core.dish.work import dish
from pantry_core.formats.operations import plan_document
from pantry_core.formats.reading import WrongInput
from pantry_core.routes.jobs import JOBS, Made, boiling_down_h, fed_by
from tests.reference.feast_rules import broken_rules_of

WEEKDAYS = ["mon", "tue", "wed", "thu", "fri"]
BUY = {"id": "buy", "place": "shop", "trip": "market", "min_h": 1, "prefer_h": 1, "max_h": 1,
       "hands_min": 60}  # fmt: skip
KEEP = {"id": "keep", "place": "fridge", "max_h": 60}
ROAST = {"id": "roast", "place": "oven", "min_h": 2, "prefer_h": 2, "max_h": 2, "hands_min": 15}
CARVE = {"id": "carve", "min_h": 0.25, "prefer_h": 0.25, "max_h": 0.25, "hands_min": 15}
HOUSE = {
    "now": "2027-03-18T09:00", "tz": "Europe/London", "serve_at": "2027-03-22T18:30",  # a Monday
    "day": {"work": [{"days": WEEKDAYS, "from": "17:00", "to": "21:00"},
                     {"days": ["sat", "sun"], "from": "08:00", "to": "21:00"}]},
    "places": {"shop": None, "fridge": 12, "oven": 2, "hob": 4},
    "open": {"shop": {"hours": [{"days": [*WEEKDAYS, "sat"], "from": "08:00", "to": "19:00"}],
                      "closed": ["2027-03-22"]}},
}  # fmt: skip


def feast(*dishes, **changes):
    named = [
        {"id": name, "name": name.title(), "early_max_min": 15, "steps": copy.deepcopy(steps)}
        for name, steps in zip(("hen", "goat", "hare"), dishes, strict=False)
    ]
    return copy.deepcopy(HOUSE) | {"dishes": named} | changes


def begins(answer, step):
    return sorted(each["start"][5:16] for each in answer["steps"] if each["step"] == step)


def test_one_trip_in_the_hours_of_shop_and_work():
    document = feast([BUY, KEEP, ROAST, CARVE], [BUY, KEEP, CARVE])
    answer = plan_document(document)
    assert broken_rules_of(document, answer) == []
    # Monday is a holiday, on Sunday the shop is shut: Saturday at 18:00, one hour of hands for both
    assert begins(answer, "buy") == ["03-20T18:00", "03-20T18:00"]
    # what keeps for two hours only would be bought on Monday afternoon: shut, and they are at work
    document["dishes"][0]["steps"][1]["max_h"] = 2
    assert {each["reason"] for each in plan_document(document)["why"]} <= {"shut", "work"}


def test_fewer_trips_come_before_a_later_start():
    long = [BUY, KEEP, CARVE | {"min_h": 48, "prefer_h": 48, "max_h": 48}]
    answer = plan_document(feast(long, [BUY, KEEP | {"max_h": 72}, CARVE]))
    # the one must be bought by half past five; the other could be at six, and goes along
    assert begins(answer, "buy") == ["03-20T17:30", "03-20T17:30"]


def test_work_keeps_its_hours_but_for_the_last_three():
    def start_of(hours, minutes=30):
        work = CARVE | {"id": "work", "hands_min": minutes, "min_h": 0.5, "max_h": 0.5,
                        "prefer_h": 0.5}  # fmt: skip
        wait = {"id": "wait", "min_h": hours, "max_h": hours + 48}
        document = feast([work, wait], serve_at="2027-03-18T18:30", now="2027-03-15T09:00")
        return begins(plan_document(document), "work")[0]

    assert start_of(2.5) == "03-18T15:30"  # three hours before: outside of work hours, and allowed
    assert start_of(3) == "03-17T20:30"  # on a Thursday afternoon they are at work
    assert start_of(3, minutes=10) == "03-18T15:00"  # ten minutes need nobody's working hours


def test_a_step_waits_for_a_step_of_another_dish():
    sauce = {"id": "sauce", "place": "hob", "min_h": 0.25, "prefer_h": 0.25, "max_h": 0.5,
             "hands_min": 15, "after": [{"dish": "hen", "step": "roast"}]}  # fmt: skip
    document = feast([ROAST, CARVE], [sauce], cooks=2)
    answer = plan_document(document)
    assert broken_rules_of(document, answer) == []
    assert begins(answer, "sauce")[0] >= "03-22T18:00"
    document["dishes"][1]["steps"][0]["after"][0]["min_h"] = 1
    late = plan_document(document)
    assert late["status"] == "infeasible"
    assert {each["reason"] for each in late["why"]} == {"after"}
    assert "Begin sauce of Goat without waiting for Hen." in {
        each["text"] for each in late["remedies"]
    }


def test_lateness_costs_twice_and_a_quarter_of_an_hour_is_not_told():
    rest = {"id": "rest", "min_h": 0.5, "prefer_h": 1, "max_h": 1}
    steps = [ROAST | {"started_at": "2027-03-22T15:45"}, rest, CARVE]
    document = feast(steps, now="2027-03-22T17:00")
    for dish_ in document["dishes"]:
        dish_["late_max_min"] = 60
    answer = plan_document(document)
    # out at 17:45: half an hour less of rest costs less than half an hour of lateness
    assert answer["steps"][-1]["end"][11:16] == "18:30"
    document["dishes"][0]["steps"][0]["started_at"] = "2027-03-22T16:30"
    answer = plan_document(document | {"now": "2027-03-22T17:40"})
    assert answer["steps"][-1]["end"][11:16] == "19:15"
    assert [each["code"] for each in answer["notices"]] == ["late"]


@pytest.mark.parametrize(
    ("changes", "reason", "says", "helps"),
    [
        ({"open": {"shop": {}}}, "shut", "never opens", "Find a shop that is open"),
        ({"day": {"work": [{"from": "09:00", "to": "09:10"}]}}, "work", "60 min",
         "Work from 07:00"),
        ({"now": "2027-03-21T09:00"}, "shut",
         "shut on Sunday 21 March and Monday 22 March", "Find a shop that is open on"),
    ],
)  # fmt: skip
def test_says_which_rule_and_what_is_allowed(changes, reason, says, helps):
    document = feast([BUY, KEEP, ROAST, CARVE], **changes)
    answer = plan_document(document)
    assert [each["reason"] for each in answer["why"]] == [reason]
    assert says in answer["why"][0]["text"]
    assert any(helps in each["text"] for each in answer["remedies"])
    for remedy in answer["remedies"]:
        assert broken_rules_of(remedy["input"], remedy["plan"]) == [], remedy["text"]


def test_what_is_bought_the_day_before_is_kept():
    document = feast([BUY, KEEP | {"max_h": 24}, ROAST, CARVE])
    (text, *_) = [each["text"] for each in plan_document(document)["remedies"]]
    assert text == "buy the day before: keep for up to 48 h. Mind how long it keeps."


def waits(*pairs):
    return [{"dish": dish_, "step": step} for dish_, step in pairs]


@pytest.mark.parametrize(
    ("document", "where"),
    [
        (feast([BUY], open={"barn": {}}), "open.barn"),
        (feast([BUY], open={"shop": {"closed": ["Sunday"]}}), "open.shop.closed.0"),
        (feast([BUY], open={"shop": {"hours": [{"from": "19:00", "to": "08:00"}]}}),
         "open.shop.hours.0.to"),
        (feast([BUY], day={"work": [{"from": "noon", "to": "13:00"}]}), "day.work.0.from"),
        (feast([BUY], day={"work": [{"dates": ["soon"], "from": "12:00", "to": "13:00"}]}),
         "day.work.0.dates.0"),
        (feast([BUY | {"after": waits(("hen", "buy"))}]), "dishes.0.steps.0.after.0.dish"),
        (feast([BUY | {"after": waits(("emu", "buy"))}]), "dishes.0.steps.0.after.0.dish"),
        (feast([BUY | {"after": waits(("goat", "fly"))}], [BUY]), "dishes.0.steps.0.after.0.step"),
        (feast([BUY, CARVE | {"after": waits(("goat", "carve"))}],
               [BUY | {"after": waits(("hen", "carve"))}, CARVE]), "dishes.0.steps.1.after.0"),
    ],
)  # fmt: skip
def test_refuses(document, where):
    with pytest.raises(WrongInput) as refused:
        plan_document(document)
    assert where in {each.where for each in refused.value.problems}


def job(**asked):
    return dish(DishRequest.model_validate({"profile": "us", "people": 6, "job": asked}))


def test_a_stock_is_boiled_down_as_far_as_the_cook_wants():
    # 4 kg to a fifth: 3.2 kg of water, at 1.5 kg an hour in a wide pot (common practice)
    assert boiling_down_h(800.0, 0.2) == pytest.approx(3.2 / 1.5)
    reduce = {step.id: step for step in job(name="reduction", made_g=800.0, reduced_to=0.2).steps}
    assert reduce["reduce"].prefer_h == 2.25
    assert "to a fifth" in reduce["reduce"].text


def test_ingredients_by_head_and_as_is_usual():
    typed = job(name="dough", made_g=900.0, ingredients=[
        {"name": "flour", "grams": 80.0, "a_head": True}, {"name": "yeast", "grams": 5.0},
    ])  # fmt: skip
    assert [(each.name, each.grams) for each in typed.ingredients] == [
        ("flour", 480.0), ("yeast", 5.0)
    ]  # fmt: skip
    assert {each.name for each in job(name="rice", made_g=900.0).ingredients} == {"rice"}


@pytest.mark.parametrize(
    ("name", "steps", "waited"),
    [
        ("reduction", [("trim", "trim"), ("lift", "lift"), ("braise", "cook")], ("boil", "lift")),
        ("roots", [("simmer", "cook"), ("stand", "stand"), ("carve", "carve")],
         ("in-broth", "simmer")),
        ("wrap", [("roast", "cook"), ("stand", "stand"), ("carve", "carve")], ("fill", "stand")),
        ("rice", [("cook", "cook"), ("carve", "carve")], ("swell", "cook")),
    ],
)  # fmt: skip
def test_what_a_side_job_is_made_of(name, steps, waited):
    assert fed_by(JOBS[name], [Made(step, kind, "hob") for step, kind in steps]) == waited


def test_no_pot_is_left_on_an_open_flame_without_a_word():
    overnight = {"step": "simmer-stock", "place": "hob"}
    asked = {"profile": "us", "job": {"name": "stock", "made_g": 4000.0}}
    assert dish(DishRequest.model_validate(asked)).notices == ()  # in the oven
    on_the_hob = DishRequest.model_validate(asked | {"edits": [overnight]})
    assert [each.code for each in dish(on_the_hob).notices] == ["open-flame"]
    times = {"step": "simmer-stock", "start": "2027-03-20T08:00", "end": "2027-03-20T18:00"}
    by_day = {"tz": "Europe/London", "edits": [overnight], "planned": [times]}
    assert dish(DishRequest.model_validate(asked | by_day)).notices == ()
