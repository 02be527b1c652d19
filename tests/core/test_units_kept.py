"""What is typed bare means the same after the shop goes from inches to centimetres, wherever it is typed."""

from __future__ import annotations

import types
from collections.abc import Iterator
from typing import Annotated, Any, Union, get_args, get_origin

import pytest
from pydantic import BaseModel

from fardo.core.quantity import read_distance, read_length, read_mass
from fardo.files.job import JobFile
from fardo.files.kind import KindFile
from fardo.files.shapes import CompoundShape
from fardo.files.shop import ShopFile, starting_shop
from fardo.files.typed import Measure, kind_of, with_unit, with_units

ROOTS: tuple[type[BaseModel], ...] = (JobFile, KindFile, ShopFile, CompoundShape)


def models(root: type[BaseModel]) -> Iterator[type[BaseModel]]:
    """It and every model it is made of."""
    seen: set[type[BaseModel]] = set()
    waiting: list[Any] = [root]
    while waiting:
        one = waiting.pop()
        waiting += [*getattr(one, "__metadata__", ()), *get_args(one)]
        if isinstance(one, type) and issubclass(one, BaseModel) and one not in seen:
            seen.add(one)
            waiting += [field.annotation for field in one.model_fields.values()]
            yield one


def takes_a_typed_number(annotation: Any) -> bool:
    """Whether it takes text or a number as one thinks fit, as measures do."""
    if get_origin(annotation) in (Union, types.UnionType):
        taken = {get_args(one)[0] if get_origin(one) else one for one in get_args(annotation)}
        if {str, float} <= {one for one in taken if isinstance(one, type)}:
            return True
    return any(takes_a_typed_number(one) for one in get_args(annotation))


def missed(root: type[BaseModel]) -> list[str]:
    return [
        f"{model.__name__}.{name}"
        for model in models(root)
        for name, field in model.model_fields.items()
        if takes_a_typed_number(field.annotation) and kind_of(field) is None
    ]


class Forgotten(BaseModel):
    """A measure that nobody marked, and a list of them."""

    height: str | float | None = None
    sides: list[str | Annotated[float, "a remark"]] = []
    known: Measure | None = None


def test_a_measure_that_is_not_marked_is_found() -> None:
    assert missed(Forgotten) == ["Forgotten.height", "Forgotten.sides"]


@pytest.mark.parametrize("root", ROOTS, ids=lambda root: root.__name__)
def test_every_measure_of_a_format_is_marked_as_one(root: type[BaseModel]) -> None:
    assert missed(root) == []
    marked = {name for model in models(root) for name, field in model.model_fields.items() if kind_of(field)}
    assert marked  # the walk does find some


@pytest.mark.parametrize(
    ("typed", "kind", "kept"),
    [
        ("2", "length", "2 in"), ("-3", "length", "-3 in"), ("5' 3", "length", "5' 3"), ("2 cm", "length", "2 cm"),
        ("9 1/2 + 1/8", "length", "9 1/2 + 1/8 in"), ("4", "mass", "4 lb"), ("4 lb 6", "mass", "4 lb 6"),
        ("4 x 3 x 2", "sizes", "4 x 3 x 2 in"), ("40", "distance", "40 mi"), ("65 km", "distance", "65 km"),
        ("0", "length", "0"), ("about two", "length", "about two"),
    ],
)  # fmt: skip
def test_the_unit_is_put_behind_what_hangs_on_it(typed: str, kind: Any, kept: str) -> None:
    assert with_unit(typed, "in", kind) == kept
    assert with_unit(kept, "cm", kind) == kept


def test_everything_bare_in_a_job_keeps_what_it_meant() -> None:
    job = JobFile.model_validate(
        {
            "ship": {"distance": "40"},
            "beside": [{"size": "9 x 8 x 7", "weight": "6"}],
            "parts": [
                {
                    "weight": "4", "gap": "2",
                    "shape": {"kind": "outline", "thickness": "1", "points": [["-3", "0"], ["9", "0"], ["0", "9"]]},
                }
            ],
            "take_apart": [{"id": "a", "do": "b", "saves": {"length": "3"}, "frees": [{"weight": "1"}]}],
        }
    )  # fmt: skip
    kept = with_units(job, "in")
    assert read_distance(str(kept.ship.distance), "cm") == read_distance("40 mi")
    assert (kept.beside[0].size, kept.beside[0].weight) == ("9 x 8 x 7 in", "6 lb")
    assert kept.parts[0].shape.points[0] == ["-3 in", "0"]  # type: ignore[union-attr]
    assert kept.take_apart[0].saves == {"length": "3 in"}
    assert kept.take_apart[0].frees[0].weight == "1 lb"
    assert (job.ship.distance, job.parts[0].gap) == ("40", "2")  # the one it was made from is as it was


def test_everything_bare_in_the_settings_keeps_what_it_meant() -> None:
    shop = starting_shop().model_copy(update={"gap": "2", "kerf": "1/8"})
    shop.boards[0].sheets[0].length, shop.tape.weight_per_m = "48", "0.01"
    metric = with_units(shop, "in").model_copy(update={"units": "cm"}).to_core()
    assert metric.default_gap == read_length("2 in")
    assert metric.kerf == read_length("1/8 in")
    assert metric.grades[shop.boards[0].code].sheets[0].length == read_length("48 in")
    assert metric.tape.weight_per_m == read_mass("0.01 lb")
