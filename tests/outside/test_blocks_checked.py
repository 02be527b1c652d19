"""Blocks of equal boxes in a box that is there: nothing meets, gaps are kept, nothing is there twice, much is filled.

Classes BR1 and BR5 of Bischoff and Ratcliff, "Issues in the development of approaches to container loading" (Omega,
1995), by their published generator, from memory: the heuristic published with them fills 83.8 % of both.
"""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest
from benchmarks.containers import container_ask

from fardo.core.arrange.ask import Ask
from fardo.core.arrange.blocks import as_blocks, packed_in_blocks
from fardo.core.arrange.body import Body
from fardo.core.arrange.boxes import BoxGround
from fardo.core.arrange.search import SearchState, improve
from fardo.core.goods.gap import Gap
from fardo.core.goods.shape import Box
from fardo.core.quantity import Length, Mass, volume_nm3
from tests.arrangement_checked import faults

RANDOM = np.random.default_rng(7)


def mm(*sides: float) -> tuple[Length, Length, Length]:
    a, b, c = (Length.of_mm(float(side)) for side in sides)
    return a, b, c


@pytest.mark.parametrize(("kinds", "at_least"), [(3, 0.92), (12, 0.89)])
def test_published_containers_are_filled_better_than_by_the_published_heuristic(kinds: int, at_least: float) -> None:
    ask = container_ask(kinds, 0)
    best = improve(ask, SearchState(), 2).best
    assert best is not None
    laid = [(body, one) for body, one in zip(ask.bodies, best.answer.laid, strict=True) if one is not None]
    assert ask.inside is not None
    filled = sum(volume_nm3(*body.sizes) for body, _ in laid) / volume_nm3(*ask.inside)
    assert filled > at_least
    # Each two apart along an axis, each within the walls: by their corners alone.
    lows = np.array([[c.nm for c in one.at] for _, one in laid])
    sizes = np.array([np.abs(np.array(one.turn) @ [s.nm for s in body.sizes]) for body, one in laid]).astype(int)
    highs = lows + sizes
    assert (lows >= 0).all()
    assert (highs <= [side.nm for side in ask.inside]).all()
    for n in range(len(laid)):
        apart = (lows[n + 1 :] >= highs[n]) | (lows[n] >= highs[n + 1 :])
        assert apart.any(axis=1).all()


def test_gaps_and_rules_are_kept_and_every_thing_is_there_once() -> None:
    for _ in range(12):
        gap = Gap.even(Length.of_mm(float(RANDOM.integers(0, 30))))
        bodies = []
        for kind in range(3):
            sides = RANDOM.integers(40, 160, 3)
            body = Body(f"kind {kind}", Box(*mm(*sides)), gap, weight=Mass.of_grams(500), this_side_up=kind == 1)
            bodies += [body] * int(RANDOM.integers(2, 7))
        ask = Ask(tuple(bodies), inside=mm(700, 520, 430))
        blocks = as_blocks(BoxGround(ask))
        if len(bodies) < 8:
            assert blocks is None
            continue
        assert blocks is not None
        answer = packed_in_blocks(ask, blocks, 1)
        assert answer == packed_in_blocks(ask, blocks, 1)
        # What lies over another goes in after it.
        heights = [one.at[2] for n in answer.order if (one := answer.laid[n]) is not None]
        assert heights == sorted(heights)
        assert sorted(answer.order) == [n for n, one in enumerate(answer.laid) if one is not None]
        whole = [n for n, one in enumerate(answer.laid) if one is not None]
        there = Ask(tuple(ask.bodies[n] for n in whole), inside=ask.inside)
        places = {n: k for k, n in enumerate(whole)}
        kept = replace(answer, laid=tuple(answer.laid[n] for n in whole), order=tuple(places[n] for n in answer.order))
        assert faults(there, kept) == []


def test_where_not_the_same_is_kept_everywhere_blocks_do_not_serve() -> None:
    plain = [Body("a", Box(*mm(50, 60, 70)), weight=Mass.of_grams(100))] * 10
    inside = mm(400, 400, 400)
    assert as_blocks(BoxGround(Ask(tuple(plain), inside=inside))) is not None
    assert as_blocks(BoxGround(Ask(tuple(plain)))) is None
    fragile = replace(plain[0], bears=Mass(0))
    assert as_blocks(BoxGround(Ask((*plain, fragile), inside=inside))) is None
    wide = replace(plain[0], gap=Gap.even(Length.of_mm(20.0)))
    assert as_blocks(BoxGround(Ask((*plain, wide), inside=inside))) is None
