"""A job that is divided among parcels, as a job of each parcel: what it holds, cut and packed by itself."""

from __future__ import annotations

from collections import Counter

from fardo.core.plan.boxed import Boxed
from fardo.core.plan.job import Job
from fardo.core.plan.parcels import value_shares
from fardo.core.plan.price import Plan
from fardo.core.plan.wrapped import Wrapped
from fardo.files.arrangement import write_arrangement
from fardo.files.job import Chosen, JobFile, PartEntry
from fardo.files.stock import FoundBoxEntry

_TITLE = 170  # signs that are left of it, before which parcel it is


def parcel_jobs(file: JobFile, read: Job, plan: Plan) -> list[JobFile]:
    """One for each parcel of a plan, in its order. Extras, parcels beside and what is left to take apart go with
    the first; a box found for the job goes with the parcel that is in it.

    Args:
        read: the job as it is read, which the plan was made for.
    """
    left = [list(part.units) for part in read.parts]
    held = [sum(unit.pile for unit in boxed.load.units) for boxed in plan.boxes]
    whole, own = read.value, read.must_go().own_value
    shares = value_shares(own, held)
    if whole is not None and own is not None and shares[0] is not None:
        shares[0] += whole - own  # of the parcels beside, which go with the first
    found = []
    for n, (boxed, share) in enumerate(zip(plan.boxes, shares, strict=True)):
        parts = _parts_in(boxed, file, read, left)
        packed = boxed.load.packed
        found.append(
            file.model_copy(
                deep=True,
                update={
                    "title": f"{file.title[:_TITLE]}, parcel {n + 1} of {len(plan.boxes)}".lstrip(", "),
                    "parts": parts,
                    "extras": file.extras if n == 0 else [],
                    "beside": file.beside if n == 0 else [],
                    "found_boxes": _found_in(boxed, file),
                    "take_apart": file.take_apart if n == 0 else [],
                    "value": str(share) if share is not None else None,
                    "parcels_at_most": 1,
                    "arrangement": write_arrangement(boxed.load, packed) if packed is not None else None,
                    "chosen": Chosen(),
                },
            )
        )
    return found


def _parts_in(boxed: Boxed, file: JobFile, read: Job, left: list[list[Wrapped]]) -> list[PartEntry]:
    """The parts that a parcel holds, with their counts.

    Args:
        left: of each part what is in no parcel yet; lessened.
    """
    wanted = Counter(_key(unit) for unit in boxed.load.units)
    parts: list[PartEntry] = []
    named: set[str] = set()
    for entry, one, units in zip(file.parts, read.parts, left, strict=True):
        taken = []
        for unit in list(units):
            if wanted[_key(unit)]:
                wanted[_key(unit)] -= 1
                units.remove(unit)
                taken.append(unit)
        if taken:
            named.add(one.name)
            count = sum(unit.pile for unit in taken)
            piles = len(taken) if entry.piles is not None else None
            parts.append(entry.model_copy(deep=True, update={"count": count, "piles": piles, "name": one.name}))
        elif one.lies_with in named:  # a cushion goes where what it cushions goes
            parts.append(entry.model_copy(deep=True))
    return parts


def _found_in(boxed: Boxed, file: JobFile) -> list[FoundBoxEntry]:
    """The boxes found for the job that the parcel is in: each is there once."""
    taken = {one.item.name for one in boxed.made.taken}
    named = [(entry, entry.name or f"found box {n + 1}") for n, entry in enumerate(file.found_boxes)]
    return [entry.model_copy(update={"name": name}) for entry, name in named if name in taken]


def _key(unit: Wrapped) -> tuple[object, ...]:
    """What a thing is known by, however it is packed: in a mailer it has no gap, in a maker's inserts no wrap."""
    return unit.part.name, unit.pile, unit.shape
