"""Hours of shop and work, the shopping trip and its list, side jobs, dishes that feed dishes."""

import json
from datetime import UTC, datetime, timedelta

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile

from pantry_core.formats.operations import plan_document
from pantry_web.demo.kitchen import lay_the_table
from pantry_web.feasts.models import Dish, Feast
from pantry_web.shopping.models import Bought
from tests.reference.feast_rules import broken_rules_of
from tests.web.conftest import feast_outlook, steps_of

OFF, SHUT, WORK, OPEN = "off", "shut", "work", "open"
DOUGH = {"job": "dough", "name": "", "amount": "", "reduced_to": "", "ingredients": ""}


@pytest.fixture
def lantern(quince, feast):
    lay_the_table(quince, feast)
    return feast


def plum_sunday(quince):
    return Feast.objects.create(
        kitchen=quince, name="Plum Sunday", serve_at=datetime(2027, 5, 2, 11, 30, tzinfo=UTC),
        time_zone="Europe/London", heads=4,
    )  # fmt: skip


def document_of(feast, kitchen):
    whole = feast_outlook(feast, kitchen, kitchen.stands_at)
    return json.loads(json.dumps(whole.plan_documents[0]))


def page(cook, path):
    return cook.get(path).content.decode()


def test_a_cure_that_would_begin_before_work_may_lie_longer(cook, quince):
    """Two days before a Sunday's roast is Friday noon; work begins at five, so Thursday does."""
    feast = plum_sunday(quince)
    crown = {"name": "Crown", "cut": "turkey-crown", "mass": "2870 g", "method": "dry-brine",
             "days": "2 days"}  # fmt: skip
    assert cook.post(f"/feasts/{feast.pk}/dish/", crown).status_code == 302
    offered = cook.get(f"/feasts/{feast.pk}/helps/").context["remedies"]
    assert offered[0].text == "54 h of dry brine instead of 48 h for Crown."
    seen = {"version": Feast.objects.get(pk=feast.pk).version}
    cook.post(f"/feasts/{feast.pk}/helps/{offered[0].code}/", seen)
    dish = feast.dishes.get()
    assert dish.cure["days"] == 54 / 24  # as the text says
    whole = feast_outlook(Feast.objects.get(pk=feast.pk), quince, quince.stands_at)
    lies = max(each.end - each.start for each in whole.plan.steps)
    assert timedelta(hours=48) < lies < timedelta(hours=60)


def test_who_is_a_few_minutes_late_still_has_the_plan(cook, quince):
    """The shop shuts an hour after it was to be gone to; a quarter later that is too late."""
    feast = plum_sunday(quince)
    crown = {"name": "Crown", "cut": "turkey-crown", "mass": "2870 g", "method": "dry-brine",
             "days": "54 h"}  # fmt: skip
    cook.post(f"/feasts/{feast.pk}/dish/", crown)
    whole = feast_outlook(feast, quince, quince.stands_at)
    last = whole.plan.latest_start
    for late, is_late in ((14, False), (15, True)):
        whole = feast_outlook(feast, quince, last + timedelta(minutes=late))
        assert ("late" in {each.rule for each in whole.breaks}) == is_late


def add_job(cook, feast, **typed):
    answer = cook.post(f"/feasts/{feast.pk}/job/", DOUGH | typed)
    assert answer.status_code == 302, answer.context["job_form"].errors
    return Dish.objects.latest("pk")


def test_the_plan_is_asked_with_the_hours_of_the_kitchen(cook, quince, lantern):
    typed = {"shop_tue_from": "09:00", "shop_tue_to": "17:30", "work_sun_from": "10:00",
             "work_sun_to": "20:00"}  # fmt: skip
    assert cook.post("/house/hours/", typed).status_code == 302
    quince.refresh_from_db()
    quince.country = "GB"
    quince.save()
    for day, kind in (("2027-03-17", OFF), ("2027-03-16", SHUT)):
        assert cook.post("/house/days/", {"day": day, "kind": kind}).status_code == 302
    hours = {"begins": "08:00", "ends": "10:00"}
    assert cook.post("/house/days/", {"day": "2027-03-20", "kind": OPEN} | hours).status_code == 302
    document = document_of(lantern, quince)
    shop = document["open"]["shop"]
    assert shop["hours"] == [
        {"days": ["tue"], "from": "09:00", "to": "17:30"},
        {"dates": ["2027-03-20"], "from": "08:00", "to": "10:00"},
    ]
    assert "2027-03-16" in shop["closed"]
    assert "2027-01-01" in shop["closed"]  # a public holiday
    sunday, free = document["day"]["work"]
    assert sunday == {"days": ["sun"], "from": "10:00", "to": "20:00"}
    # the day of the feast and days off have the hours of a Sunday
    assert {"2027-03-17", "2027-03-22", "2027-01-01"} <= set(free["dates"])
    assert (free["from"], free["to"]) == ("10:00", "20:00")


@pytest.mark.parametrize(
    ("path", "typed", "says"),
    [
        ("/house/hours/", {"shop_mon_from": "09:00"}, "Give both hours, or neither."),
        ("/house/hours/", {"work_fri_from": "19:00", "work_fri_to": "17:00"},
         "later than the beginning"),
        ("/house/hours/", {"work_fri_from": "noon", "work_fri_to": "17:00"}, "valid time"),
        ("/house/days/", {"day": "2127-03-20", "kind": OFF}, "over a year away"),
        ("/house/days/", {"day": "2027-03-20", "kind": WORK}, "Say from when"),
        ("/house/days/", {"day": "2027-03-20", "kind": "holiday"}, "valid choice"),
    ],
)  # fmt: skip
def test_hours_that_cannot_be_are_said_beside_the_field(cook, path, typed, says):
    answer = cook.post(path, typed)
    assert answer.status_code == 422
    told = answer.content.decode()
    assert says in told
    assert all(f'value="{each}"' in told for each in typed.values() if ":" in each)


def test_five_dishes_go_shopping_once_and_keep_every_hour(quince, lantern):
    document = document_of(lantern, quince)
    answer = plan_document(document)
    assert answer["status"] == "optimal"
    assert broken_rules_of(document, answer) == []
    starts = {(each["dish"], each["step"]): each["start"] for each in answer["steps"]}
    bought = {at for (_, step), at in starts.items() if step == "buy" and at > document["now"]}
    assert len(bought) == 1
    # all is carved and dished up in the last half hour
    assert min(at for (_, step), at in starts.items() if step == "carve") >= "2027-03-22T18:00"


def test_a_trip_is_ticked_line_by_line_and_as_a_whole(cook, quince, lantern):
    add_job(cook, lantern, job="cabbage", ingredients="red cabbage 80 g a head")
    cook.get("/shopping/")  # the plan is worked out
    (trip,) = cook.get("/shopping/").context["trips"]
    lines = {line.name: line for line in trip.lines}
    assert lines["red cabbage"].to_buy_g == 80 * 8
    assert "fridge until" in lines["Duck, whole, for bay-salted duck"].keep
    tick = f"/shopping/{trip.code}/tick/"
    cook.post(tick, {"line": lines["red cabbage"].key})
    assert Bought.objects.filter(key=lines["red cabbage"].key).count() == 1
    cook.post(tick, {"line": lines["red cabbage"].key, "bought": "no"})  # and back into the shelf
    assert not Bought.objects.exists()
    duck = lantern.dishes.get(name="Bay-salted duck")
    cook.post(tick, {"line": f"meat-{duck.pk}"})
    assert duck.events.filter(what="step-ended", step_key="buy").count() == 1
    (rest,) = (t for t in cook.get("/shopping/").context["trips"] if t.at)
    cook.post(f"/shopping/{rest.code}/all/")
    assert lantern.dishes.filter(events__step_key="buy").distinct().count() == 5
    assert not any(trip.to_buy and not trip.is_done for trip in
                   cook.get("/shopping/").context["trips"])  # fmt: skip
    stale = cook.post(tick, {"line": "meat-0"}, follow=True)
    assert "The plan has changed" in stale.content.decode()


def test_parts_of_one_purchase_are_one_line_and_two_trays(cook, quince, feast):
    for name, cut in (("Breasts", "goose-breast"), ("Legs", "goose-leg")):
        piece = {"cut": cut, "mass_g": 1500.0, "purchase": "goose"}
        document = {"piece": piece, "cure": {"method": "dry-brine"}, "heat": {"way": "roast"}}
        Dish.objects.create(feast=feast, name=name, document=document)
    ovens = [step["uses"] for dish in document_of(feast, quince)["dishes"]
             for step in dish["steps"] if step.get("place") == "oven"]  # fmt: skip
    assert sorted(ovens) == [0.5, 0.5, 1.0]  # and the gammon's glaze
    lines = [line for trip in cook.get("/shopping/").context["trips"] for line in trip.lines]
    (goose,) = (line for line in lines if line.name == "Goose")
    assert goose.to_buy_g == 3000


def test_parts_of_one_purchase_are_said_at_the_weigh_up_and_stay(cook, roast):
    _, dish, typed = roast
    path = f"/dishes/{dish.pk}/mix/"
    assert cook.post(path, typed | {"purchase": "half a pig"}).status_code == 302
    dish.refresh_from_db()
    assert dish.piece["purchase"] == "half a pig"
    assert 'value="half a pig"' in page(cook, path)
    refused = cook.post(path, typed | {"purchase": "half\na pig"})
    assert refused.status_code == 422


def test_a_step_of_ones_own_in_the_shop_stands_on_the_list(cook, roast):
    feast, dish, _ = roast
    own = {"own-title": "Buy flowers", "own-place": "shop", "own-min_h": "15 min",
           "own-max_h": "15 min", "own-hands": "15 min", "own-after": "",
           "version": feast.version}  # fmt: skip
    own["version"] = Feast.objects.get(pk=feast.pk).version
    assert cook.post(f"/dishes/{dish.pk}/steps/add/", own).status_code == 302
    (trip,) = (t for t in cook.get("/shopping/").context["trips"]
               if any(line.name == "Buy flowers" for line in t.lines))  # fmt: skip
    key = next(line.key for line in trip.lines if line.name == "Buy flowers")
    cook.post(f"/shopping/{trip.code}/tick/", {"line": key})
    assert dish.events.filter(step_key="buy-flowers").exists()


def test_roots_go_into_the_broth_when_the_meat_has_left_it(cook, quince, feast, gammon):
    roots = add_job(cook, feast, job="roots", made_from=[gammon.pk])
    assert roots.mass_g == 250 * 8  # so much a head (common practice)
    assert [(wait.dish, wait.step) for wait in steps_of(roots)["in-broth"].after] == [
        (str(gammon.pk), "simmer")
    ]
    answer = plan_document(document_of(feast, quince))
    at = {each["step"]: each for each in answer["steps"]}
    assert at["in-broth"]["start"] >= at["simmer"]["end"]
    # a circle is refused where it would be made
    simmer = {"version": Feast.objects.get(pk=feast.pk).version} | {
        f"simmer-{name}": value for name, value in
        {"title": "Simmer", "min_h": "1", "waits": f"{roots.pk}:in-broth"}.items()
    }  # fmt: skip
    refused = cook.post(f"/dishes/{gammon.pk}/steps/change/simmer/", simmer)
    assert refused.status_code == 422
    circle = f"{gammon.name} waits for {roots.name}, {roots.name} waits for {gammon.name}"
    assert f"That goes in a circle: {circle}." in refused.content.decode()
    # a copy waits for the copy, a file for what comes with it, and what is dropped for nobody
    cook.post(f"/feasts/{feast.pk}/copy/", {"day": "2027-06-07"})
    copy = Feast.objects.latest("pk")
    waited = copy.dishes.get(name="Roots and cabbage in the broth").document["edits"][0]["after"]
    assert waited[0]["dish"] == str(copy.dishes.get(name="Treacle gammon").pk)
    taken = cook.get(f"/feasts/{copy.pk}/feast.json").content
    cook.post("/feasts/in/", {"document": SimpleUploadedFile("copy.json", taken)})
    again = Feast.objects.latest("pk")
    assert json.loads(cook.get(f"/feasts/{again.pk}/feast.json").content) == json.loads(taken)
    again.dishes.filter(name="Treacle gammon").update(is_given_up=True)
    assert "waits for Treacle gammon, which is dropped" in page(cook, f"/feasts/{again.pk}/")
    steps = [step for dish in document_of(again, quince)["dishes"] for step in dish["steps"]]
    assert not any(step.get("after") for step in steps)


def test_what_waits_is_asked_about_before_it_is_ticked(cook, quince, feast, gammon):
    sauce = add_job(cook, feast, job="reduction", made_from=[gammon.pk], reduced_to="0.2")
    assert "to a fifth" in steps_of(sauce)["reduce"].text
    told = page(cook, f"/dishes/{sauce.pk}/steps/")
    assert "It waits for Lift, rinse, pat dry of Treacle gammon. Begin all the same?" in told
    cook.post(f"/dishes/{sauce.pk}/steps/begin/boil/")
    assert not sauce.events.exists()
    cook.post(f"/dishes/{sauce.pk}/steps/begin/boil/", {"sure": "on"})
    assert sauce.events.filter(step_key="boil").exists()


def test_a_side_job_is_changed_and_kept_for_another_time(cook, quince, feast):
    bread = add_job(cook, feast, job="bread")
    parts = {"parts-amount": "1.2 kg", "parts-ingredients": "spelt flour 90 g a head\nyeast 1 oz",
             "version": feast.version}  # fmt: skip
    assert cook.post(f"/dishes/{bread.pk}/made-of/parts/", parts).status_code == 302
    bread.refresh_from_db()
    assert bread.mass_g == 1200
    spelt, yeast = bread.document["job"]["ingredients"]
    assert spelt == {"name": "spelt flour", "grams": 90.0, "a_head": True}
    assert yeast["grams"] == pytest.approx(28.35, abs=0.01)
    assert "spelt flour 90 g a head" in page(cook, f"/dishes/{bread.pk}/made-of/")
    bad = {**parts, "parts-ingredients": "a handful of flour", "version": feast.version + 1}
    refused = cook.post(f"/dishes/{bread.pk}/made-of/parts/", bad)
    assert refused.status_code == 422
    assert "a name and an amount" in refused.content.decode()
    cook.post(f"/dishes/{bread.pk}/steps/keep/", {"keep-name": "Spelt bread"})
    (route,) = quince.routes.exclude(job=None)
    other = plum_sunday(quince)
    again = add_job(cook, other, job=f"kept-{route.pk}")
    assert (again.name, again.mass_g) == ("Spelt bread", 1200 / 8 * 4)
    assert again.document["job"]["ingredients"][0]["name"] == "spelt flour"
    assert list(steps_of(again)) == list(steps_of(bread))


def test_what_helps_changes_the_one_evening_that_it_names(cook, quince):
    found = plum_sunday(quince)
    add_job(cook, found, job="pickle")
    quince.work_hours = [{"days": ["mon"], "from": "09:00", "to": "09:10"}]
    quince.save()
    told = cook.get(f"/feasts/{found.pk}/helps/").context["remedies"]
    remedy = next(each for each in told if each.text.startswith("Work "))
    version = {"version": Feast.objects.get(pk=found.pk).version}
    cook.post(f"/feasts/{found.pk}/helps/{remedy.code}/", version)
    (changed,) = quince.changed_days.filter(kind=WORK)
    assert f"{changed.day:%-d %b}" in remedy.text
    assert feast_outlook(found, quince, quince.stands_at).solution.plan.steps


def test_a_dish_with_a_later_hour_keeps_its_times_when_the_feast_has_begun(cook, quince):
    found = plum_sunday(quince)
    add_job(cook, found, job="dough")
    rice = add_job(cook, found, job="rice")
    rice.serve_at = found.serve_at + timedelta(hours=4)
    rice.save()
    now = found.serve_at + timedelta(minutes=5)
    whole = feast_outlook(found, quince, now)
    assert {each.dish for each in whole.plan.steps} == {str(rice.pk)}
    assert whole.plan.steps[-1].end == rice.serve_at
    document = json.loads(json.dumps(whole.plan_documents[0]))
    assert broken_rules_of(document, plan_document(document)) == []
    quince.stands_at = now
    quince.save()
    assert "It can all be done" in page(cook, f"/feasts/{found.pk}/")


def test_roots_roast_at_the_heat_that_the_oven_has(cook, quince):
    """A shoulder takes the oven at 150 °C for hours, where roots would have it at 200."""
    feast = plum_sunday(quince)
    shoulder = {"name": "Shoulder", "cut": "pork-shoulder", "mass": "1900 g", "method": "none",
                "heat": "slow-oven", "medium": "150"}  # fmt: skip
    assert cook.post(f"/feasts/{feast.pk}/dish/", shoulder).status_code == 302
    typed = DOUGH | {"job": "roast-roots"}
    page_ = cook.post(f"/feasts/{feast.pk}/job/", typed, follow=True).content.decode()
    assert "Roast the roots at 150 °C, as the oven is for Shoulder" in page_
    roots = Dish.objects.latest("pk")
    assert roots.document["edits"] == [{"step": "roast", "medium_c": 150.0}]
    step = steps_of(roots)["roast"]
    assert step.heat_c == 150.0
    assert step.prefer_h > 1.5
    cool = {"name": "Second", "cut": "chicken", "mass": "1800 g", "method": "none", "heat": "roast"}
    other = Feast.objects.create(
        kitchen=quince, name="Other", serve_at=datetime(2027, 5, 9, 11, 30, tzinfo=UTC),
        time_zone="Europe/London", heads=4,
    )  # fmt: skip
    assert cook.post(f"/feasts/{other.pk}/dish/", cool).status_code == 302
    assert "edits" not in add_job(cook, other, job="roast-roots").document  # it shares as it is
