"""Every arrangement the engine makes here, checked by means it does not use (see arrangement_checked): kits in honest
shapes, and random ones.
"""

from __future__ import annotations

import json
from itertools import pairwise

import pytest
from benchmarks.kits import KITS, job_of
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from fardo.core.arrange.ask import Ask
from fardo.core.arrange.body import Body
from fardo.core.arrange.manual import faults as own_faults
from fardo.core.arrange.search import SearchState, improve
from fardo.core.goods.gap import Gap
from fardo.core.goods.shape import Box, Cylinder, Disc, Ellipsoid, Ring, Taper, bars
from fardo.core.plan.load import ask_of
from fardo.core.quantity import INCH, POUND, ZERO, Length, Mass
from fardo.files.job import read_job
from fardo.files.understood import understand
from tests.arrangement_checked import faults
from tests.made_up import EXAMPLES, shop

SHOP = shop()
JOBS = {title: json.dumps(job_of(title, parts)) for title, parts in KITS.items()}
JOBS |= {path.stem: path.read_text() for path in EXAMPLES}


def ask_for(job: str) -> Ask:
    return ask_of(understand(read_job(job), SHOP).must_load())


@pytest.mark.parametrize("title", JOBS)
def test_a_kit_lies_whole_in_its_box_with_every_gap_kept_and_goes_in_straight(title: str) -> None:
    ask = ask_for(JOBS[title])
    found = improve(ask, SearchState(), 5).found
    assert found
    for one in found:
        assert one.answer.whole
        assert faults(ask, one.answer) == []
        assert own_faults(ask, one.answer) == []


inches = st.integers(2, 28).map(lambda n: Length(INCH.nm * n // 2))
thin = st.integers(2, 8).map(lambda n: Length(INCH.nm * n // 4))


@st.composite
def frames(draw: st.DrawFn):
    a, b, c = draw(inches), draw(inches), draw(inches)
    corners = [(ZERO, ZERO, ZERO), (a, ZERO, ZERO), (a, b, ZERO), (a, b, c)]
    return bars(draw(thin), list(pairwise(corners)))


shapes = st.one_of(
    st.builds(Box, inches, inches, inches),
    st.builds(Cylinder, thin, inches),
    st.builds(Disc, inches, thin),
    st.builds(Ellipsoid, inches, inches, inches),
    st.builds(Taper, thin, thin, inches),
    st.builds(lambda inner, wide, thick: Ring(inner + wide * 2, inner, thick), inches, thin, thin),
    frames(),
)
kept = st.sampled_from([ZERO, INCH.half(), INCH, INCH * 2])
gaps_by_place = st.builds(Gap, kept, kept, *[st.one_of(st.none(), kept)] * 4)
bodies = st.builds(
    lambda shape, gap, wrap, weight, up, flat, bare_top: Body(
        "thing", shape, gap, (wrap, wrap, wrap), "own", weight, up, flat, Mass(0) if bare_top else None
    ),
    shapes,
    st.one_of(st.sampled_from([ZERO, INCH.half(), INCH]).map(Gap.even), gaps_by_place),
    st.sampled_from([ZERO, Length(INCH.nm * 3 // 16)]),
    st.integers(1, 12).map(lambda n: POUND * n),
    st.booleans(),
    st.booleans(),
    st.sampled_from([False, False, False, True]),
)


@given(st.lists(bodies, min_size=2, max_size=6), st.integers(0, 3))
@settings(max_examples=10, suppress_health_check=list(HealthCheck))
def test_a_random_kit_too(kit: list[Body], seed: int) -> None:
    ask = Ask(tuple(kit), seed=seed)
    for one in improve(ask, SearchState(), 3).found:
        assert faults(ask, one.answer) == []
        for body, laid in zip(ask.bodies, one.answer.laid, strict=True):
            assert not body.this_side_up or laid.turn[2] == (0, 0, 1)
