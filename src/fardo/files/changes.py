"""Small changes to a job that may make it cheaper, each as the job file that it leads to: one step further apart, one
layer less, the goods pressed in.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from fardo.core.plan.job import Job
from fardo.core.plan.savings import may_lose_a_layer
from fardo.core.plan.shop import Shop
from fardo.core.quantity import TAPE, ZERO, show_length
from fardo.files.field_reading import is_empty
from fardo.files.job import JobFile
from fardo.files.kind import take_step


@dataclass(frozen=True, slots=True)
class Change:
    """A job with one thing changed.

    Args:
        says: what is changed, as an order.
    """

    says: str
    job: JobFile


def changes(job: JobFile, read: Job, shop: Shop) -> Iterator[Change]:
    """Every change there is to try.

    Args:
        read: the job as it is read.
    """
    for step in job.take_apart:
        if not step.chosen and (step.saves or step.frees):
            yield Change(f"{step.do.rstrip('.')}: one step further apart", take_step(job, step.id, True, shop))
    yield from _layers_less(job, read, shop)
    gives = read.load.gives.to_step(TAPE[shop.units], "down") if read.load is not None else ZERO
    if gives > ZERO and is_empty(job.pressed):
        by = show_length(gives, shop.units, "nearest").text
        pressed = job.model_copy(update={"pressed": by})
        yield Change(f"Press the goods in by {by} each way, as far as the wrap gives", pressed)


def _layers_less(job: JobFile, read: Job, shop: Shop) -> Iterator[Change]:
    for n, (part, units) in enumerate(zip(job.parts, (one.units for one in read.parts), strict=True)):
        for k, layer in enumerate(part.protect):
            if isinstance(layer.layers, str) or not may_lose_a_layer(units, layer.layers):
                continue
            less = job.model_copy(deep=True)
            less.parts[n].protect[k].layers = layer.layers - 1
            name = shop.materials[layer.material].name if layer.material in shop.materials else layer.material
            of = f", on {units[0].part.name}" if len(job.parts) > 1 else ""
            yield Change(f"Put one layer less of {name}{of}", less)
