"""Geometry of the pictures."""

import random
from datetime import UTC, datetime, time, timedelta
from itertools import combinations, pairwise, permutations
from zoneinfo import ZoneInfo

import pytest
from hypothesis import given
from hypothesis import strategies as st

from pantry_core.measures.said import days_said, span
from pantry_core.mixes.inside import Inside
from pantry_core.quantities import Between, Celsius, Division, Grams, Rise, literal
from pantry_web.drawings.bands import band_boxes
from pantry_web.drawings.inside import picture as curves
from pantry_web.drawings.lanes import crossed, crossings, lanes_of
from pantry_web.drawings.lettering import LEAST_WIDE, NAMED_FROM, along, extent, inside, short_name
from pantry_web.drawings.passage import NARROW, WIDE, passage
from pantry_web.drawings.scales import Length, bars, gauge
from pantry_web.drawings.scene import LEFT, scene
from pantry_web.drawings.shapes import Around, Chain, Room, Stay, Visit
from pantry_web.drawings.timescale import House, midnights, nights
from pantry_web.quantities import (
    length,
    mass,
    measured,
    spoons,
    temperature,
    volume,
)

HOUSE = House(ZoneInfo("Europe/London"), time(7, 0), time(22, 30))
SERVE = datetime(2027, 3, 29, 17, 30, tzinfo=UTC)  # the clocks went forward the day before
STAYS = [("buy", "shop", 1), ("chill", "fridge", 12), ("trim", "counter", 0.5),
         ("brine", "fridge", 14 * 24), ("lift", "counter", 0.5), ("rest", "fridge", 24),
         ("roast", "oven", 2), ("carve", "counter", 0.25)]  # fmt: skip


def drawing(chains, now, size, numbers=None, **seen):
    return passage(scene(chains, now, SERVE, HOUSE, **seen), size, numbers=numbers)


def picture(size, now, since=None):
    start = SERVE - timedelta(hours=sum(hours for *_, hours in STAYS))
    stays = []
    for key, place, hours in STAYS:
        end = start + timedelta(hours=hours)
        stays.append(Stay(key, key.title(), place, start, end, "ahead", span(hours)))
        start = end
    visits = [Visit("brine", stays[3].start + timedelta(days=day), day < 5) for day in range(1, 14)]
    return drawing([Chain("Duck", 0, stays, visits, SERVE)], now, size, since=since)


@pytest.mark.parametrize("size", [WIDE, NARROW])
@pytest.mark.parametrize("days", [-40, -3, -0.1, 0.02, 5])
def test_passage(size, days):
    drawn = picture(size, SERVE + timedelta(days=days))
    assert (drawn.now is None) == (days in (-40, 5))
    for above, below in pairwise(drawn.ribbons):
        assert above.y + above.height == pytest.approx(below.y, abs=0.2)
    for ribbon in drawn.ribbons:
        assert ribbon.height >= size.heights.least - 0.1
        assert size.axis <= ribbon.x
        assert ribbon.x + ribbon.width <= size.width
        assert bool(ribbon.lines) != bool(ribbon.number)
        for line in ribbon.lines:
            wide = len(line.words) * size.letter
            left = line.x if line.anchor == "start" else line.x - wide
            assert left >= 0
            assert left + wide <= size.width + size.letter
    assert drawn.ribbons[-1].y + drawn.ribbons[-1].height == pytest.approx(drawn.serve[0], abs=0.2)
    assert [mark.done for mark in drawn.marks].count(True) == 4
    by_brine = drawn.ribbons[3]
    assert all(by_brine.y < mark.y < by_brine.y + by_brine.height for mark in drawn.marks)
    assert [row.to_go for row in drawn.rows] == sorted((r.to_go for r in drawn.rows), reverse=True)
    assert drawn.rows[-1].is_hourly
    ordinary = [row.height for row in drawn.rows[2:-3]]
    assert max(ordinary) < drawn.rows[-1].height / 3


def test_days_are_true_days():
    # 28 March 2027 has 23 hours in London
    days = midnights(SERVE - timedelta(days=2), SERVE, HOUSE.zone)
    assert [(b - a).total_seconds() / 3600 for a, b in pairwise(days)] == [24, 23]
    asleep = nights(days[1] - timedelta(hours=6), days[2], HOUSE)
    assert [(b - a).total_seconds() / 3600 for a, b in asleep] == [7.5, 1.5]


def test_gauge_and_bars():
    assert gauge(0, 120, 200).value_x == 0
    assert gauge(9999, 120, 200).value_x == gauge(0, 120, 200).width
    drawn = gauge(150, 120, 200)
    assert drawn.enough_x < drawn.value_x < drawn.most_x
    band = Length("c", 24 * 10, "chosen", (24 * 7, 24 * 14))
    times = bars([Length("a", 24 * 14, "school"), Length("b", 24 * 7, "left"), band])
    assert times.bars[0].width == pytest.approx(2 * times.bars[1].width, abs=0.2)
    assert times.bars[2].x == pytest.approx(times.bars[1].width, abs=0.2)
    assert times.bars[2].x < times.bars[2].usual_x < times.bars[0].width
    assert len(times.ticks) <= 8


@pytest.mark.parametrize(
    ("shown", "wanted"),
    [
        (mass(2400, "metric"), "2\u202f400 g"), (mass(15.44, "metric"), "15.4 g"),
        (mass(4.316, "metric"), "4.32 g"), (mass(0.003, "metric"), "0.003 g"),
        (mass(0.0, "metric"), "0 g"), (mass(99.96, "metric"), "100 g"),
        (mass(3231.85, "imperial"), "7 lb 2 oz"), (mass(15.44, "imperial"), "0.54 oz"),
        (mass(453.59237, "imperial"), "1 lb"), (mass(42.5, "imperial"), "1½ oz"),
        (mass(0.1, "imperial"), "0.10 g"),
        (mass(0.0, "imperial"), "0 oz"),
        (mass(453.5, "imperial"), "1 lb"), (mass(2097.9, "imperial"), "4 lb 10 oz"),
        (length(57.15, "metric"), "57 mm"),
        (length(57.15, "imperial"), "2¼ in"), (length(12.7, "imperial"), "½ in"),
        (length(4.2, "metric"), "4.2 mm"), (span(0), "0 min"), (span(0.2), "12 min"),
        (span(0.9999), "1 h"), (span(1.25), "1 h 15 min"), (span(2.5), "2½ h"), (span(4.3), "4½ h"),
        (span(13.9), "14 h"), (span(23.999), "1 day"), (span(30), "30 h"), (span(36), "1½ days"),
        (span(60.1), "2½ days"), (span(330.7), "14 days"), (span(-4.0), "4 h"),
        (spoons(12.8), "13"), (spoons(0.55), "½"), (spoons(1.2), "1¼"), (spoons(3.4), "3½"),
        (spoons(0.05), "a pinch"), (temperature(63.0, "metric"), "63 °C"),
        (temperature(63.0, "imperial"), "145 °F"), (temperature(3.5, "metric"), "3.5 °C"),
        (volume(850, "metric"), "850 ml"), (volume(2400, "metric"), "2.4 l"),
        (volume(2366, "imperial"), "2½ qt"), (volume(118.3, "imperial"), "½ cup"),
        (measured(Celsius(74.0), "imperial"), "165 °F"), (measured(Rise(5.0), "imperial"), "9 °F"),
        (measured(literal("57 to 21 °C"), "metric"), "57 to 21 °C"),
        (measured(literal("−20 °C"), "imperial"), "−4 °F"),
        (measured(literal("−18 °C"), "imperial"), "0 °F"),
        (measured(Division(0.1), "imperial"), "0.1 g"),
        (measured(literal("@85 °C"), "imperial"), "185 °F"),
        (measured(literal("@190 °C"), "imperial"), "375 °F"),
        (measured(Between(Grams(450.0), Grams(1400.0)), "imperial"), "15¾ oz to 3 lb 1½ oz"),
    ],
)  # fmt: skip
def test_amounts_as_shown(shown, wanted):
    assert shown == wanted


boxes = st.tuples(st.floats(110, 800), st.floats(40, 700), st.floats(10, 120), st.floats(17, 200))


def overlap(a, b):
    return (a[0] < b[0] + b[2] and b[0] < a[0] + a[2]
            and a[1] < b[1] + b[3] - 1 and b[1] < a[1] + a[3] - 1)  # fmt: skip


@given(boxes, st.lists(st.text("abcdef ", max_size=30), min_size=1, max_size=3))
def test_writing_inside_a_box_stays_inside(box, lines):
    for text in inside(lines, box, 6.7) or ():
        assert box[0] <= text.x
        assert text.x + len(text.words) * 6.7 <= box[0] + box[2]
        assert box[1] <= text.y <= box[1] + box[3]


def test_dishes_that_lie_in_one_place_at_once_get_lanes_of_their_own():
    def chain(name, hue, begin_h, end_h, place="oven"):
        start, end = SERVE - timedelta(hours=begin_h), SERVE - timedelta(hours=end_h)
        stay = Stay("roast", "Roast", place, start, end, "ahead", span(begin_h - end_h))
        return Chain(name, hue, [stay], [Visit("roast", start, done=False)], end)

    chains = [chain("Hen", 0, 5, 2), chain("Hare", 1, 4, 1), chain("Pike", 2, 2, 0.5),
              chain("Goat", 3, 9, 6, "smoker")]  # fmt: skip
    drawn = drawing(chains, SERVE - timedelta(hours=10), WIDE)
    hen, hare, pike, goat = drawn.ribbons
    assert hen.x != hare.x
    assert pike.x == hen.x  # its lane is free again
    assert {column.name: column.lanes for column in drawn.columns}["oven"] == 2
    around = Around({"oven": Room(2), "smoker": Room(1)})
    (full,) = drawing(chains, SERVE - timedelta(hours=10), WIDE, around=around).full
    assert (full.y, full.height) == (hare.y, pytest.approx(hare.height, abs=0.2))
    assert full.words == "full 14:30–17:30"
    assert not any(overlap(a.box, b.box) for a, b in combinations(drawn.ribbons, 2))
    assert [hue for hue, *_ in drawn.hatches] == [0, 1, 2, 3]
    assert len({hatch[1:] for hatch in drawn.hatches}) == 4  # told apart without colour
    assert goat.chain.name == "Goat"
    ends = [y for _, _, y in drawn.served]
    assert ends[0] < ends[1] < ends[2]  # each at its own hour


def test_only_what_lies_after_a_moment_is_drawn():
    now = SERVE - timedelta(days=3)
    whole, late = picture(WIDE, now), picture(WIDE, now, since=now - timedelta(hours=12))
    assert len(late.ribbons) < len(whole.ribbons)
    assert late.rows[0].to_go == 3
    assert late.height < whole.height
    assert all(mark.y >= late.ribbons[0].y for mark in late.marks)


@pytest.mark.parametrize(
    ("days", "words"),
    [(0.5, "12 h"), (0.625, "15 h"), (1.0, "1 day"), (1.25, "30 h"), (1.5, "1½ days"),
     (5.0, "5 days"), (5.26, "5½ days"), (14.9, "15 days")],
)  # fmt: skip
def test_days_as_people_say_them(days, words):
    assert days_said(days) == words


PLACES = ("counter", "hob", "oven", "smoker")


def random_chains(dice, count):
    """Dishes of which each is bought, lies in the fridge between work, and is cooked."""
    found = []
    for n in range(count):
        stays, end = [], SERVE - timedelta(minutes=15 * dice.randint(0, 4))
        serve_at = end
        for place, hours in reversed([
            ("shop", 1.0), ("fridge", dice.choice((6, 20, 60))), ("counter", 0.5),
            ("fridge", dice.choice((8, 30, 120))), ("counter", dice.choice((0.25, 0.75))),
            (dice.choice(PLACES[1:]), dice.choice((0.5, 1.5, 3.0))), ("counter", 0.5),
        ]):  # fmt: skip
            begin = end - timedelta(hours=hours)
            title = dice.choice(
                ("Rest uncovered", "Strong brine, timed", "Roast", "Trim and weigh")
            )
            stays.insert(0, Stay(f"s{len(stays)}", title, place, begin, end, "ahead", span(hours)))
            end = begin
        found.append(
            Chain(
                f"{dice.choice(('Bay', 'Alder', 'Old'))} dish {n}",
                n % 8,
                stays,
                [],
                serve_at,
                str(n),
            )
        )
    return found


@pytest.mark.parametrize("size", [WIDE, NARROW])
def test_over_random_feasts_what_is_long_says_its_name_and_nothing_leaves_the_picture(size):
    dice = random.Random(11)
    for _ in range(100):
        chains = random_chains(dice, dice.randint(2, 9))
        drawn = drawing(chains, SERVE - timedelta(hours=30), size)
        placed = []
        for ribbon in drawn.ribbons:
            if ribbon.height > NAMED_FROM and ribbon.width >= LEAST_WIDE:
                assert ribbon.lines, ribbon.stay
            boxes = [extent(line, size.letter) for line in ribbon.lines]
            if ribbon.number:
                (x, y), r = ribbon.middle, ribbon.radius
                boxes.append((x - r, y - r, 2 * r, 2 * r))
            for box in boxes:
                assert box[0] >= -1
                assert box[0] + box[2] <= drawn.width + 1
                assert box[1] >= 0
                assert box[1] + box[3] <= drawn.height
                placed.append((ribbon, box))
        for (one, a), (other, b) in combinations(placed, 2):
            if one is not other:
                shrunk = (a[0] + 1, a[1] + 1, max(a[2] - 2, 1), max(a[3] - 2, 1))
                assert not overlap(shrunk, b), (one.stay, other.stay)


def test_numbers_count_the_silent_steps_of_a_day_and_are_the_same_in_both_sizes():
    chains = random_chains(random.Random(5), 6)
    wide = drawing(chains, SERVE - timedelta(hours=30), WIDE)
    silent = [each for each in wide.ribbons if not each.lines]
    by_day = {}
    for each in silent:
        by_day.setdefault(each.stay.start.astimezone(HOUSE.zone).date(), []).append(each)
    for day in by_day.values():
        found = sorted({each.number for each in day})
        assert found == list(range(1, len(found) + 1))
        in_time = sorted(day, key=lambda each: each.number)
        assert [e.stay.start for e in in_time] == sorted(e.stay.start for e in day)
    numbers = {(each.chain.dish, each.key): each.number for each in silent}
    narrow = drawing(chains, SERVE - timedelta(hours=30), NARROW, numbers=numbers)
    told = {(each.chain.dish, each.key): each.number for each in narrow.ribbons if each.number}
    assert told
    assert told.items() <= numbers.items()


def test_words_keep_clear_of_bands_where_they_have_room():
    crossed = 0
    for seed in range(20):
        chains = random_chains(random.Random(seed), 6)
        drawn = drawing(chains, SERVE - timedelta(days=30), WIDE)
        rows = [[each for each in drawn.ribbons if each.chain is chain] for chain in chains]
        bands = [box for row in rows for box in band_boxes(row)]
        for ribbon in drawn.ribbons:
            x, y, width, height = ribbon.box
            middle = (x, y + 4, width, height - 8)
            over = sorted(each[1] for each in bands if overlap((*each[:3], 4.0), middle))
            edges = [y, *over, y + height]
            gap = max(below - above for above, below in pairwise(edges))
            for line in ribbon.lines:
                _, top, _, tall = extent(line, 1.06 * WIDE.letter)
                if line.turned and tall + 24 < gap:
                    crossed += bool(over)
                    assert not any(top < each < top + tall for each in over), ribbon.stay
    assert crossed > 20


def test_hours_that_are_shut_rooms_that_overflow_and_what_waits_for_another_are_drawn():
    def stay(key, place, begin_h, end_h, **more):
        start, end = SERVE - timedelta(hours=begin_h), SERVE - timedelta(hours=end_h)
        return Stay(key, key.title(), place, start, end, "ahead", span(begin_h - end_h), **more)

    stock = Chain(
        "Stock", 0, [stay("buy", "shop", 9, 8), stay("boil", "hob", 8, 4)], [], SERVE, "1"
    )
    sauce = Chain("Sauce", 1, [stay("thin", "hob", 2, 0, after=(("1", "boil"),))], [], SERVE, "2")
    hen = Chain("Hen", 2, [stay("fry", "hob", 7, 5), stay("wait", "counter", 5, 0)], [], SERVE, "3",
                {"fry": (SERVE - timedelta(hours=8), SERVE - timedelta(hours=6))})  # fmt: skip
    shut = (SERVE - timedelta(hours=6), SERVE - timedelta(hours=3))
    around = Around(
        {"hob": Room(1, lambda litres: f"{litres:g} l")}, {"shop": [shut], "smoker": [shut]},
        [shut], [shut],
    )  # fmt: skip
    drawn = drawing([stock, sauce, hen], SERVE - timedelta(hours=10), WIDE, around=around)
    hob = next(each for each in drawn.columns if each.name == "hob")
    assert hob.filled == "2 of 1 l"
    (over,) = drawn.full
    assert over.is_over
    assert over.words == "too full 11:30–13:30"  # British Summer Time
    assert {each.kind for each in drawn.shades} == {"shut", "idle", "away"}
    widths = {each.kind: each.width for each in drawn.shades}
    assert widths["away"] > widths["idle"]
    ((hue, path),) = drawn.joins
    by_key = {each.key: each for each in drawn.ribbons}
    assert hue == by_key["boil"].hue
    assert path.startswith(f"M{by_key['boil'].middle[0]:.1f}")
    assert path.endswith(f"{by_key['thin'].y:.1f}")
    ((_, x, y, _, _),) = drawn.before
    assert x == by_key["fry"].x
    assert y < by_key["fry"].y


def test_a_day_alone_is_drawn_by_the_hour_and_without_what_lies_outside_it():
    now = SERVE - timedelta(days=3)
    midnight = midnights(SERVE - timedelta(hours=30), SERVE, HOUSE.zone)[0]
    start = SERVE - timedelta(hours=40)
    stays = [
        Stay("brine", "Brine", "fridge", start, SERVE - timedelta(hours=24), "ahead", "16 h"),
        Stay("rest", "Rest", "fridge", SERVE - timedelta(hours=24), SERVE, "ahead", "24 h"),
    ]
    drawn = drawing([Chain("Hen", 0, stays, [], SERVE)], now, WIDE, day=midnight)
    (row,) = drawn.rows
    assert row.is_hourly
    assert row.to_go == 1
    assert drawn.serve is None
    assert drawn.now is None
    hours = (drawn.scale.moments[-1] - drawn.scale.moments[0]).total_seconds() / 3600
    assert hours == 23  # the clocks go forward that night
    assert {each.key for each in drawn.ribbons} == {"brine", "rest"}


def test_forty_dishes_have_a_lane_each_that_can_be_told_from_the_next():
    chains = random_chains(random.Random(2), 40)
    drawn = drawing(chains, SERVE - timedelta(hours=30), WIDE)
    assert drawn.is_broad
    lanes = {each.x: each.width for each in drawn.ribbons if each.stay.place == "fridge"}
    assert len(lanes) == 40
    for (left, width), (right, _) in pairwise(sorted(lanes.items())):
        assert width >= LEAST_WIDE
        assert left + width < right


@given(boxes, st.lists(st.text("abcdef ", min_size=1, max_size=30), min_size=1, max_size=3))
def test_writing_along_a_box_stays_in_it_and_long_ones_always_say_something(box, wordings):
    text = along(wordings, box, 6.7)
    if box[2] < LEAST_WIDE or box[3] <= NAMED_FROM:
        assert text is None
        return
    place = extent(text, 6.7)
    assert place[1] >= box[1]
    assert place[1] + place[3] <= box[1] + box[3]


def test_short_names():
    others = ["Treacle gammon", "Bay-salted duck", "Wild duck", "Roots in broth"]
    assert [short_name(each, others) for each in others] == [
        "gammon", "Bay-salted duck", "Wild duck", "Roots in broth",
    ]  # fmt: skip
    others = ["Loin, boned", "Roots, roasted", "Roots, pickled"]
    assert [short_name(each, others) for each in others] == ["Loin", *others[1:]]


def test_bands_cross_no_more_than_in_the_best_of_all_orders_and_hardly_more_with_many():
    dice, over = random.Random(3), []
    for _ in range(60):
        count = dice.randint(2, 6)
        stays = [chain.stays for chain in random_chains(dice, count)]
        cost = crossings(stays, LEFT)
        least = min(crossed(cost, order) for order in permutations(range(count)))
        lanes = lanes_of(stays, LEFT)
        order = sorted(range(count), key=lambda n: lanes[n, 1])
        over.append((crossed(cost, order), least))
    assert sum(found for found, _ in over) <= 1.1 * sum(least for _, least in over)


def test_in_out_and_ready_are_told_apart_in_the_curves_of_the_salt():
    """At whatever day: three letters of 6 px at the foot, “ready” at the head and in the plot."""
    days = tuple(float(day) for day in range(27))
    curve = (2.0,) * len(days)
    salt = Inside(days, curve, curve, curve, curve, curve, ((2.0,),) * len(days))
    for day in range(1, 27):
        drawn = curves(salt, even_pct=2.0, share=0.8, ready_d=day, out_d=day, is_slab=True,
                       closed=False)  # fmt: skip
        at = drawn.out.at + drawn.out.dx
        assert at - (18 if drawn.out.anchor == "end" else 0) > 38 + 12
        at = drawn.ready.at + drawn.ready.dx
        assert at + (32 if drawn.ready.anchor == "start" else 0) < 34 + 340 + 1
