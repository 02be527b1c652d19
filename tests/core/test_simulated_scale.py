"""The simulated scale: it settles to what stands on it, with noise on the way only; no clock is waited for."""

from __future__ import annotations

import pytest

from fardo.core.quantity import OUNCE, POUND, Mass, read_mass
from fardo.standins.scale import CAPACITY, Scale


def test_it_settles_to_what_stands_on_it_and_stays_there() -> None:
    scale = Scale()
    assert scale.read(0.0).text == "0 lb"
    scale.put(read_mass("14 lb 6 oz"), 10.0)
    on_the_way = [scale.read(10.0 + n / 10) for n in range(1, 40)]
    states = [one.state for one in on_the_way]
    first = states.index("settled")
    assert first > 5
    assert set(states[:first]) == {"settling"}
    assert set(states[first:]) == {"settled"}
    assert {one.text for one in on_the_way[first:]} == {"14 lb 6 oz"}
    assert len({one.text for one in on_the_way[:first]}) > 5


def test_the_tare_is_taken_only_when_it_has_settled() -> None:
    scale = Scale()
    scale.put(POUND * 2, 0.0)
    scale.tare(0.1)
    assert scale.read(9.0).text == "2 lb"
    scale.tare(9.0)
    assert scale.read(9.0).text == "0 lb"
    scale.put(POUND * 5 + OUNCE, 10.0)
    assert scale.read(20.0).text == "3 lb 1 oz"
    scale.put(Mass(0), 30.0)
    assert scale.read(40.0).text == "0 lb"


@pytest.mark.parametrize(("load", "state"), [(CAPACITY, "settled"), (CAPACITY + OUNCE, "overload")])
def test_over_its_capacity_it_shows_no_figure(load: Mass, state: str) -> None:
    scale = Scale()
    scale.put(load, 0.0)
    assert scale.read(60.0).state == state
    assert (scale.read(60.0).text == "") == (state == "overload")


def test_it_shows_kilograms_too() -> None:
    scale = Scale("cm")
    scale.put(read_mass("2.5 kg"), 0.0)
    assert scale.read(60.0).text == "2.5 kg"
