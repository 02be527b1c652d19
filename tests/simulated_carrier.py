"""The simulated carrier as tests use it: served, with a fault or none, and wired to a shop."""

from __future__ import annotations

from typing import Any

import httpx

from fardo.demo import CARRIER
from fardo.standins.carrier import create_carrier
from fardo.wire.call import Patience
from tests.made_up import services
from tests.served import AppHere

# Less patient than a shop is, so that a test of a slow carrier is not slow.
BRIEF = Patience(connect=1, read=0.8, tries=3, in_all=6)


def served_carrier(slow_seconds: float = 30) -> AppHere:
    """On a port of its own."""
    tariff = [one for one in services() if one.carrier == CARRIER]
    return AppHere(create_carrier(CARRIER, tariff, slow_seconds=slow_seconds))


def wired(client: Any, *addresses: str) -> Any:
    """Has a shop ask the carrier at these addresses.

    Args:
        client: of the shop, with its address.
    """
    view = client.get("/api/shop").json()
    shop = {**view["shop"], "wires": [{"carrier": CARRIER, "address": one} for one in addresses]}
    return client.put("/api/shop", json={"revision": view["revision"], "shop": shop})


def fault(carrier: str, name: str, times: int = 0) -> None:
    """Of the next answers; of all where no number is given."""
    httpx.post(f"{carrier}/fault", json={"fault": name, "times": times}, trust_env=False).raise_for_status()


def ground(told: Any) -> Any:
    """What a carrier asks for its ground service."""
    return next(q for q in told["quotes"] if (q["service"], q["programme"]) == ("Ground", "account"))
