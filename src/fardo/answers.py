"""The command's answers as JSON values: a contract, so names are only ever added."""

from __future__ import annotations

from collections import Counter
from typing import Any

from fardo.core.cut.drawing import Blank
from fardo.core.fill.filling import Filled
from fardo.core.make import Made
from fardo.core.make.made_over import Recut
from fardo.core.make.recut import steps as recut_steps
from fardo.core.make.stack import Stack
from fardo.core.make.stack import steps as stack_steps
from fardo.core.plan.alternatives import Alternative, Habit
from fardo.core.plan.boxed import Boxed
from fardo.core.plan.price import Plan
from fardo.core.quantity import Units
from fardo.core.tariff.service import Quote, Refused
from fardo.files.drawn import in_words


def made_json(made: Made) -> dict[str, Any]:
    """What `fardo blank --json` answers."""
    return {
        "inside_mm": [side.mm for side in made.inside],
        "outside_mm": [side.mm for side in made.outside],
        "blanks": [_blank_json(piece) for piece in made.blanks],
        "fence": [{"fence_mm": s.fence.mm, "blade": s.blade, "do": s.do, "cuts": s.cuts} for s in made.fence],
        "notes": list(made.notes),
    }


def _blank_json(piece: Blank) -> dict[str, Any]:
    return {
        "name": piece.name,
        "size_mm": [side.mm for side in piece.size],
        "lines": [
            {"kind": line.kind, "from_mm": [c.mm for c in line.start], "to_mm": [c.mm for c in line.end]}
            for line in piece.lines
        ],
    }


def recuts_json(found: list[Recut], units: Units) -> dict[str, Any]:
    """What `fardo recut --json` answers where it can be done."""
    return {
        "possible": True,
        "why": "",
        "results": [
            {
                "inside_mm": [side.mm for side in made.nominal],
                "after_folds_mm": [side.mm for side in made.inside],
                "outside_mm": [side.mm for side in made.outside],
                "flaps_meet": made.flaps_meet,
                "corners_moved": made.moved,
                "cut_down_mm": made.cut_down.mm,
                "lap_mm": made.lap.mm,
                "steps": [step.told(in_words(units)) for step in recut_steps(made)],
            }
            for made in found
        ],
    }


def stack_json(made: Stack, units: Units) -> dict[str, Any]:
    """What `fardo stack --json` answers."""
    return {
        "boxes": made.boxes,
        "inside_height_mm": [made.least.mm, made.most.mm],
        "outside_mm": [side.mm for side in made.outside],
        "steps": [step.told(in_words(units)) for step in stack_steps(made)],
    }


def quote_json(quote: Quote) -> dict[str, Any]:
    """One of the quotes of `fardo price --json`."""
    billing = quote.billing
    return {
        "carrier": quote.carrier, "service": quote.service, "programme": quote.rate_plan,
        "amount": str(quote.amount), "currency": quote.amount.currency,
        "actual_weight_g": billing.actual.grams,
        "dimensional_weight_g": billing.dimensional.grams if billing.dimensional else None,
        "billed_weight_g": billing.billed.grams,
        "charges": _charges_json(quote), "days": list(quote.days),
        **_beside_json(quote),
    }  # fmt: skip


def _beside_json(quote: Quote) -> dict[str, list[float]]:
    """Of the parcels that go with it, where any do."""
    return {"beside_billed_weight_g": [one.billed.grams for one in quote.beside]} if quote.beside else {}


def _charges_json(quote: Quote) -> list[dict[str, str | int]]:
    """`parcel` is there only where several go together and the line is for one of them."""
    return [
        {"what": line.what, "amount": str(line.amount), "why": line.why}
        | ({"parcel": line.parcel} if line.parcel else {})
        for line in quote.lines
    ]


def refused_json(refused: Refused) -> dict[str, str]:
    """One of its refusals."""
    return {
        "carrier": refused.carrier,
        "service": refused.service,
        "programme": refused.rate_plan,
        "why": refused.why,
    }


def _fill_json(one: Filled, boxed: Boxed) -> dict[str, Any]:
    """A void and what goes in."""
    depth = boxed.widest_between if one.void.where == "between" else one.void.depth
    return {"where": one.void.where, "depth_mm": depth.mm, "litres": round(float(one.litres), 3), "with": one.fill.name,
            "fetch": one.fetched}  # fmt: skip


def plan_json(p: Plan) -> dict[str, Any]:
    """One of the plans of `fardo plan --json`."""
    quote, costs = p.quote, p.costs
    numbers = Counter[str]()
    return {
        "label": p.label, "total": str(costs.total), "currency": quote.amount.currency,
        "costs": {name: str(getattr(costs, name)) for name in costs.__dataclass_fields__},
        "parcels": [_parcel_json(p, n, numbers) for n in range(len(p.boxes))],
    }  # fmt: skip


def alternative_json(one: Alternative) -> dict[str, Any]:
    """One of the alternatives of `fardo plan --json`."""
    return {
        "aims": list(one.aims), "label": one.plan.label, "total": str(one.plan.costs.total), "why": one.why,
        "gives_up": one.gives_up,
    }  # fmt: skip


def habit_json(habit: Habit, best: Plan) -> dict[str, str]:
    """Its habit, and what the best plan saves on it."""
    return {"label": habit.plan.label, "total": str(habit.plan.costs.total), "saved": habit.saved_by(best)}


def _parcel_json(p: Plan, n: int, numbers: Counter[str]) -> dict[str, Any]:
    """One of its parcels.

    Args:
        numbers: how many of each part lie in those before it; counted on.
    """
    boxed, quote = p.boxes[n], p.quote
    billing = (quote.billing, *quote.beside)[n]
    placements = []
    for lies in boxed.placements:
        numbers[lies.part] += 1
        placements.append(
            {"part": lies.part, "number": numbers[lies.part], "at_mm": [c.mm for c in lies.at], "turn": lies.turn}
        )
    charges = [charge for charge in _charges_json(quote) if len(p.boxes) == 1 or charge.get("parcel", 1) == n + 1]
    return {
        "way": boxed.made.way, "school": boxed.made.school, "board": boxed.made.grade.code,
        "inside_mm": [side.mm for side in boxed.made.inside],
        "outside_mm": [side.mm for side in boxed.made.outside],
        "weight_g": boxed.weights.total.grams,
        "dimensional_weight_g": billing.dimensional.grams if billing.dimensional else None,
        "billed_weight_g": billing.billed.grams,
        **(_beside_json(quote) if len(p.boxes) == 1 else {}),
        "air_percent": round(float(boxed.air * 100), 1),
        "container": boxed.made.item or None,
        "room_mm": {side: free.mm for side, free in boxed.slack},
        "fill": [_fill_json(one, boxed) for one in boxed.filling.places],
        "covered": quote.uncovered is None,
        "placeholder": quote.placeholder,
        "service": f"{quote.carrier} {quote.service}", "charges": charges,
        "placements": placements,
        "extras": [{"name": extra.name, "at_mm": [c.mm for c in at], "size_mm": [c.mm for c in sizes]}
                   for extra, at, sizes in boxed.extras_placed],
    }  # fmt: skip
