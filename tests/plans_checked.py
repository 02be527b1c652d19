"""A plan looked over from outside: every part in it, its arrangement measured anew, its costs added up again, and its
parcels priced by the command that prices any parcel.
"""

from __future__ import annotations

import io
import json
from collections import Counter
from collections.abc import Iterator
from contextlib import redirect_stderr, redirect_stdout, suppress
from typing import Any

from fardo.cli import main
from fardo.core.make import triangle
from fardo.core.plan.boxed import Boxed
from fardo.core.plan.cells import divider_of
from fardo.core.plan.channel import PREPAID
from fardo.core.plan.job import Job
from fardo.core.plan.load import ask_of
from fardo.core.plan.price import Plan
from fardo.core.quantity import Length
from tests.arrangement_checked import faults


def faults_of(plan: Plan, job: Job) -> Iterator[str]:
    """Everything that is wrong with it, in sentences; nothing where all is kept."""
    wanted = Counter(unit.part.name for unit in job.must_load().units for _ in range(unit.pile))
    lying = Counter(lies.part for boxed in plan.boxes for lies in boxed.placements)
    if lying != wanted:
        yield f"{dict(lying)} lies in it, {dict(wanted)} is to be sent"
    amounts = [amount.minor for _, amount in plan.costs.named]
    if sum(amounts) != plan.costs.total.minor:
        yield f"{amounts} are not {plan.costs.total}"
    lines = sum(line.amount.minor for line in plan.quote.lines)
    if lines != plan.quote.amount.minor:
        yield f"its lines come to {lines}, it asks {plan.quote.amount}"
    for boxed in plan.boxes:
        yield from _faults_inside(boxed)
    if can_be_asked(plan, job) and (asked := postage_of(plan, job)) != str(plan.quote.amount):
        yield f"fardo price asks {asked} for its parcels, the plan {plan.quote.amount}"


def _faults_inside(boxed: Boxed) -> Iterator[str]:
    answer, inside = boxed.arrangement, boxed.made.inside
    if divider_of(boxed.load) is None:  # what is in cells is kept apart by board
        yield from faults(ask_of(boxed.load), answer)
    if boxed.made.soft:
        return
    goods, room = sorted(side.nm for side in answer.inside), sorted(side.nm for side in inside)
    pressed = (boxed.load.gives if boxed.made.taken else boxed.made.pressed).nm
    if any(side > there + pressed for side, there in zip(goods, room, strict=True)):
        yield f"{goods} nm do not go into {room} nm"


def can_be_asked(plan: Plan, job: Job) -> bool:
    """Whether the command knows such parcels: no container of a carrier's or label of a sale, nothing that bends, no
    third form, and of several none that is soft or has its own part of the value.
    """
    if plan.quote.rate_plan == PREPAID or any(
        boxed.made.carrier or boxed.made.bends or boxed.made.way == triangle.NAME for boxed in plan.boxes
    ):
        return False
    plain = job.must_go().value is None and not any(boxed.made.flat for boxed in plan.boxes)
    return len(plan.boxes) == 1 or plain


def postage_of(plan: Plan, job: Job) -> str | None:
    """What `fardo price` says to the parcels of a plan, by its service; None where it says nothing."""
    journey = job.must_go()
    asked = ["price", "--from", journey.origin, "--to", journey.destination]
    for boxed in plan.boxes:
        asked += ["--size", _crossed(boxed.made.outside), "--weight", f"{boxed.weights.total.ng / 10**9:.9f} g"]
    asked += ["--residential"] if journey.residential else []
    asked += ["--signature"] if journey.signature else []
    asked += ["--value", str(journey.value)] if journey.value is not None else []
    asked += ["--distance", f"{journey.distance.mm / 10**6:.9f} km"] if journey.distance is not None else []
    flat = plan.boxed.made.flat
    asked += ["--form", "soft", "--flat", _crossed(flat)] if flat is not None else []
    told: dict[str, Any] = _answer([*asked, "--json"])
    called = (plan.quote.carrier, plan.quote.service, plan.quote.rate_plan)
    return next(
        (quote["amount"] for quote in (*told["quotes"], *told["others"])
         if (quote["carrier"], quote["service"], quote["programme"]) == called),
        None,
    )  # fmt: skip


def _answer(asked: list[str]) -> dict[str, Any]:
    out = io.StringIO()
    with redirect_stdout(out), redirect_stderr(io.StringIO()), suppress(SystemExit):
        main(asked)
    answer: dict[str, Any] = json.loads(out.getvalue())
    return answer


def _crossed(sides: tuple[Length, ...]) -> str:
    return " x ".join(f"{side.nm // 10**6}.{side.nm % 10**6:06d} mm" for side in sides)
