"""Things of the made-up workshop that several tests use, so that each says only what it is about."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import replace
from functools import cache
from pathlib import Path
from typing import Any

from fardo.core.goods.gap import Gap
from fardo.core.goods.part import Extra, Part, Sizes
from fardo.core.goods.shape import Box
from fardo.core.make.allowances import Allowances
from fardo.core.plan.job import Job
from fardo.core.plan.journey import Journey
from fardo.core.plan.load import Load
from fardo.core.plan.picture import best_plans
from fardo.core.plan.price import Plan
from fardo.core.plan.shop import Shop
from fardo.core.plan.wrapped import wrap_up
from fardo.core.quantity import Length, read_length, read_mass, read_sizes
from fardo.core.tariff.carriers import Carriers
from fardo.core.tariff.service import Service
from fardo.demo import TARIFFS
from fardo.files.shop import starting_shop
from fardo.files.tariff import read_tariffs, services_of

EXAMPLES = sorted((Path(__file__).resolve().parent / "examples").glob("*.job.json"))


def inches(text: str) -> Length:
    return read_length(text, "in", zero=True)


def sizes(text: str) -> Sizes:
    return read_sizes(text)


@cache
def shop() -> Shop:
    """Read once: it is frozen, and asked for by the thousand."""
    return starting_shop().to_core()


def allowances(step: str | None = None) -> Allowances:
    """The starting allowances, panels kept exact unless a fence step is given."""
    return replace(shop().allowances, step=inches(step) if step else None)


def load(size: str = "25 x 18 1/2 x 9 3/4", weight: str = "17 lb", gap: str = "2", *extras: tuple[str, str]) -> Load:
    part = Part("table loom, folded", Box(*sizes(size)), read_mass(weight), Gap.even(inches(gap)))
    return Load(
        (wrap_up(part, (), shop()),), tuple(Extra(name, sizes(size), read_mass("4 oz")) for name, size in extras)
    )


@cache
def services() -> tuple[Service, ...]:
    return tuple(services_of(read_tariffs(TARIFFS)))


def ranked(
    of: Load, ways: Sequence[str], journey: Journey, asked: Iterable[Service], at: Shop, board: str | None = None
) -> list[Plan]:  # fmt: skip
    """The plans of what is packed already, best first."""
    read = Job(load=of, journey=journey, ways=tuple(ways), board=board)
    return best_plans(read, (), at, Carriers(tuple(asked)))


def wheel_in_bubble() -> dict[str, Any]:
    """A part in three layers of bubble: one less would do, and costs less."""
    return part(
        name="wheel",
        shape=box(length="20 in", width="20 in", height="12 in"),
        gap="0",
        weight="9 lb",
        fragility="does-not-break",
        protect=[{"material": "bubble-small", "layers": 3}],
    )


def job(**changes: Any) -> dict[str, Any]:
    """A whole job file: a concertina in its case, to a home."""
    content: dict[str, Any] = {
        "format": "fardo-job/1",
        "title": "Concertina for Ostwick",
        "ship": {"from": "10440", "to": "73120", "residential": True},
        "parts": [
            {
                "name": "concertina in its case",
                "weight": "4 lb 6 oz",
                "shape": {"kind": "box", "length": "9 1/2 in", "width": "9 1/2 in", "height": "8 in"},
                "gap": "2 in",
            }
        ],
        "extras": [{"name": "spare reeds, boxed", "size": "4 x 3 x 1 in", "weight": "5 oz"}],
        "ways": ["tray", "slotted"],
    }
    return {**content, **changes}


def part(**changes: Any) -> dict[str, Any]:
    return {**job()["parts"][0], **changes}


def box(**changes: Any) -> dict[str, Any]:
    return {**job()["parts"][0]["shape"], **changes}
