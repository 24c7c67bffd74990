"""Readings of devices: what cannot be is left out, what is thinned loses nothing."""

import random

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from pantry_core.readings.sift import AGREE_N, Sample, Sieve
from pantry_core.readings.thin import LONGEST_S, TOLERANCE_C, one_a_minute, thinned
from pantry_core.readings.watch import SILENT_S, watched

AT = 1_000_000.0


def at(seconds, celsius):
    return Sample(AT + seconds, celsius)


@pytest.mark.parametrize(("what", "read", "code"), [
    ("meat", at(120.0, 50.5), "future"), ("meat", at(-50_000.0, 50.0), "old"),
    ("meat", at(0.0, 50.0), "twice"), ("meat", at(20.0, 300.0), "range"),
    ("meat", at(20.0, 122.2), "fahrenheit"), ("fire", at(20.0, 900.0), "range"),
    ("fridge", at(20.0, 122.0), "fahrenheit"),
])  # fmt: skip
def test_what_cannot_be_is_left_out_and_said(what, read, code):
    sieve = Sieve(what, at(0.0, 50.0), seen={AT})
    kept, out = sieve.sift([read], AT + 30.0)
    assert not kept
    (wrong,) = out
    assert wrong.code == code
    assert wrong.why


def test_a_spark_changes_nothing_and_a_probe_that_was_moved_is_followed():
    sieve = Sieve("meat", at(0.0, 50.0))
    kept, out = sieve.sift([at(5.0, 90.0), at(10.0, 50.1)], AT + 10.0)
    assert [each.celsius for each in kept] == [50.1]
    assert [each.code for each in out] == ["jump"]
    moved = [at(15.0 + 5.0 * n, 30.0 + 0.1 * n) for n in range(AGREE_N)]
    kept, out = sieve.sift(moved, AT + 60.0)
    assert kept == moved
    assert not out


@given(st.randoms(use_true_random=False), st.integers(20, 400))
def test_in_whatever_order_they_come_the_same_are_believed(rng, count):
    true = [at(5.0 * n, 20.0 + 0.05 * n) for n in range(count)]
    shuffled = [true[0], *rng.sample(true[1:], count - 1)]
    sieve, kept = Sieve("meat"), []
    for first in range(0, count, 7):
        kept += sieve.sift(shuffled[first : first + 7], AT + 5.0 * count)[0]
        again, _ = sieve.sift(shuffled[first : first + 7], AT + 5.0 * count)
        assert not again
    assert sorted(kept) == true


@given(st.integers(0, 10_000), st.floats(0.05, 2.0), st.floats(60.0, 900.0))
def test_what_is_thinned_away_lies_on_the_line_between_its_neighbours(seed, tolerance, longest):
    rng = random.Random(seed)
    read, samples = 40.0, []
    for n in range(rng.randrange(2, 600)):
        read += rng.gauss(0.01, 0.15) + (rng.random() < 0.01) * rng.uniform(-5.0, 5.0)
        samples.append(Sample(5.0 * n, read))
    kept = thinned(samples, tolerance, longest)
    assert kept[0] == samples[0]
    assert kept[-1] == samples[-1]
    on_line = np.interp(
        [each.at_s for each in samples], [each.at_s for each in kept],
        [each.celsius for each in kept],
    )  # fmt: skip
    off = np.abs(on_line - [each.celsius for each in samples])
    assert off.max() <= tolerance + 1e-9
    assert max(np.diff([each.at_s for each in kept])) <= max(longest, 5.0)


def test_a_day_of_rest_is_thinned_to_a_few_and_judged_alike():
    samples = [Sample(5.0 * n, 4.0 + 0.1 * ((n // 40) % 2)) for n in range(17_280)]
    kept = thinned(one_a_minute(samples))
    assert len(kept) <= 2 * samples[-1].at_s / LONGEST_S + 2
    assert TOLERANCE_C["fridge"] < 0.5
    now = samples[-1].at_s
    band = (0.0, 5.0)
    assert watched("fridge", samples, now, band_c=band).troubles == ()
    assert watched("fridge", kept, now, band_c=band).troubles == ()


def steady(celsius, minutes, last=AT):
    return [Sample(last - 15.0 * n, celsius + 0.1 * (n % 3)) for n in range(4 * minutes)][::-1]


@pytest.mark.parametrize(("what", "samples", "more", "troubles"), [
    ("meat", steady(50.0, 20), {"fire_c": 110.0}, ()),
    ("meat", steady(109.0, 20), {"fire_c": 110.0}, ("in-the-air",)),
    ("meat", [*steady(60.0, 20, AT - 60.0), Sample(AT, 40.0)], {"fire_c": 110.0}, ("pulled-out",)),
    ("fire", steady(85.0, 10), {"band_c": (100.0, 115.0)}, ("fire-low",)),
    ("fire", steady(140.0, 10), {"band_c": (100.0, 115.0)}, ("fire-high",)),
    ("fire", [*steady(107.0, 10, AT - 60.0), *steady(80.0, 1)], {"band_c": (100.0, 115.0)}, ()),
    ("fridge", steady(8.0, 10), {"band_c": (0.0, 5.0)}, ("warm",)),
    ("fire", [Sample(AT - 15.0 * n, 107.0) for n in range(80)][::-1], {}, ("frozen",)),
])  # fmt: skip
def test_what_is_wrong_with_a_channel_is_seen(what, samples, more, troubles):
    assert watched(what, samples, AT, **more).troubles == troubles


def test_silence_is_said_and_a_rise_is_told_over_half_an_hour():
    rising = [Sample(60.0 * n, 40.0 + 0.2 * n) for n in range(60)]
    found = watched("meat", rising, rising[-1].at_s + 1.1 * SILENT_S.value)
    assert found.troubles == ("silent",)
    assert found.rise_c == pytest.approx(6.0)
    assert watched("meat", [], AT).read_c is None


@pytest.mark.parametrize(("what", "shown", "noise"), [
    ("meat", lambda s: 5.0 + 70.0 * (1.0 - np.exp(-s / 20_000.0)), 0.3),
    ("fire", lambda s: 107.0 + 6.0 * np.sin(s / 900.0), 2.0),
])  # fmt: skip
def test_what_is_noisy_is_thinned_to_a_few_and_its_curve_stays(what, shown, noise):
    toss = np.random.default_rng(5)
    seconds = np.arange(0.0, 12 * 3600.0, 5.0)
    samples = [Sample(float(s), float(shown(s) + toss.normal(0.0, noise))) for s in seconds]
    kept = thinned(one_a_minute(samples), TOLERANCE_C[what])
    assert len(kept) < len(samples) / 10
    line = np.interp(seconds, [each.at_s for each in kept], [each.celsius for each in kept])
    off = np.abs(line - shown(seconds))
    assert np.median(off) < 0.5 * noise
    assert off.max() < TOLERANCE_C[what] + 2.5 * noise
