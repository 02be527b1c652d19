"""Each kind of plan wins where it should: a stack, a re-cut box, a container at a fixed price, a box in a bag, several
parcels or one. The made-up shop and carriers; the figures follow from their prices.
"""

from __future__ import annotations

from datetime import date
from pathlib import Path
from typing import Any

from fardo.command.shared import open_shop
from fardo.core.plan.parcels import plans_in_parcels
from fardo.core.plan.picture import price_ways
from fardo.core.plan.price import Plan
from fardo.core.tariff.carriers import Carriers
from fardo.demo import open_demo
from fardo.files.job import JobFile
from fardo.files.understood import understand
from tests.core.test_whole_cost import EVERY, block, called, job_of
from tests.made_up import shop

BUBBLE = [{"material": "bubble-small"}]


def thing(size: str, weight: str, fragility: str = "moderately-rugged", **said: Any) -> dict[str, Any]:
    return {**block("thing", size, weight=weight), "fragility": fragility, "gap": "1/4 in", **said}


def first(*parts: dict[str, Any], carriers: Carriers = EVERY) -> Plan:
    return price_ways(job_of(parts), shop(), carriers).plans[0]


def test_equal_boxes_telescoped() -> None:
    best = first(thing("33 x 18 x 12", "2 lb", protect=BUBBLE))
    assert (best.boxed.made.way, best.boxed.made.item) == ("stack", "wool carton x 2")


def test_a_used_box_made_over() -> None:
    best = first(thing("17 x 20 x 5", "12 lb", protect=BUBBLE))
    assert (best.boxed.made.way, best.boxed.made.condition) == ("recut", "re-cut")


def test_a_box_in_a_bag_for_what_may_not_go_in_a_bag_bare() -> None:
    soft = Carriers((called("Wendlefirth Post", "Soft Pack"), called("Oddbarrow", "Ground")))
    best = first(thing("6 x 4 x 2", "12 oz", "moderately-delicate", gap="1 in"), carriers=soft)
    assert (best.boxed.made.way, best.quote.service) == ("bagged", "Soft Pack")


def test_a_container_at_a_price_that_no_weight_changes(tmp_path: Path) -> None:
    open_demo(tmp_path / "demo.db", date(2026, 3, 2))
    file, carriers = open_shop(tmp_path / "demo.db", None)
    at = file.to_core()
    postage = set()
    for weight in ("3 lb", "6 lb"):
        content = {"ship": {"to": "73120"}, "parts": [thing("5 x 5 x 2", weight, "rugged", protect=BUBBLE)]}
        best = price_ways(understand(JobFile.model_validate(content), at, "10440"), at, carriers).plans[0]
        assert (best.boxed.made.item, best.quote.service) == ("counter envelope", "Counter Envelope")
        postage.add(best.costs.postage)
    assert len(postage) == 1


def in_one_and_in_two(*parts: dict[str, Any]) -> tuple[int, int]:
    job = job_of(parts, parcels_at_most=2)
    one, two = price_ways(job, shop(), EVERY).cheapest, plans_in_parcels(job, shop(), EVERY)[0]
    assert one is not None
    return one.costs.total.minor, two.costs.total.minor


def test_two_heavy_things_go_in_two_parcels_and_two_light_ones_in_one() -> None:
    one, two = in_one_and_in_two(*(block(f"anvil {n}", "14 x 12 x 10", weight="45 lb") for n in range(2)))
    assert two < one
    one, two = in_one_and_in_two(*(block(f"bale {n}", "14 x 12 x 10", weight="3 lb") for n in range(2)))
    assert one < two
