"""A kind of goods, format fardo-kind/1: its parts with starting sizes, how it is taken apart, where it breaks, how it
is protected, what is asked and said. The kinds that ship with the product are TOML in ``kinds``; a shop's own are kept
with the shop. Its JSON Schema is in docs.
"""

from __future__ import annotations

import re
import tomllib
from collections.abc import Mapping
from functools import lru_cache
from importlib.resources import files
from typing import Any, Final, Literal
from unicodedata import normalize

from pydantic import ConfigDict, Field, ValidationError

from fardo.core.goods.part import MOST_OF_ONE
from fardo.core.goods.take_apart import TakeApartStep, side_after, weight_after
from fardo.core.plan.shop import Shop
from fardo.core.quantity import FINEST, Length, Units, show_length, show_mass
from fardo.core.refusal import BadInput
from fardo.core.tariff.parcel import Parcel
from fardo.files.family import QuestionName
from fardo.files.job import FillWishEntry, JobFile, LayerEntry, PartEntry, Ship, StepEntry
from fardo.files.shapes import box_shape
from fardo.files.shop import ShopFile
from fardo.files.stock import ReadyBoxEntry
from fardo.files.typed import ExtraEntry, Strict, complaints, to_count, to_length, to_mass

FORMAT: Final = "fardo-kind/1"
_MOST_CHECKS = 40  # as many as a job has
Sentences = list[str]

EXAMPLE: dict[str, Any] = {
    "format": FORMAT,
    "code": "hand-reel",
    "title": "Hand reel",
    "about": "A wooden reel on a stand, wound by a crank.",
    "weak_points": ["the crank's pin"],
    "protection": ["foam around the crank"],
    "arrangement": ["the stand flat below, the reel on it"],
    "checks": ["the crank's pin is in its bag"],
    "cautions": [],
    "parts": [
        {
            "name": "reel on its stand",
            "weight": "3 lb",
            "shape": {"kind": "box", "length": "18 in", "width": "12 in", "height": "16 in"},
            "protect": [{"material": "foam-thin", "layers": 2}],
        }
    ],
}


class FillPolicy(Strict):
    """Whether loose fill may be used, and how full the box is packed."""

    loose: bool = True
    full: Literal["firm", "soft"] = "firm"
    why: str = Field("", max_length=300)


class KindFile(Strict):
    """A kind of goods. The first part is the thing itself; steps take others off it."""

    model_config = ConfigDict(json_schema_extra={"examples": [EXAMPLE]})

    format: Literal["fardo-kind/1"] = FORMAT
    code: str = Field(pattern=r"^[a-z0-9][a-z0-9-]{0,38}$")
    title: str = Field(min_length=1, max_length=80)
    words: str = Field("", max_length=200, description="other words people look for it by")
    about: str = Field("", max_length=300)
    questions: list[QuestionName] = Field(
        default_factory=list, max_length=20, description="hazards that are asked about"
    )
    weak_points: Sentences = Field(default_factory=list, max_length=20)
    protection: Sentences = Field(default_factory=list, max_length=20)
    arrangement: Sentences = Field(default_factory=list, max_length=20)
    checks: Sentences = Field(default_factory=list, max_length=_MOST_CHECKS)
    cautions: Sentences = Field(default_factory=list, max_length=20)
    fill: FillPolicy = Field(default_factory=FillPolicy)
    board: str | None = Field(None, max_length=20)
    liner: LayerEntry | None = None
    extras: list[ExtraEntry] = Field(default_factory=list, max_length=20)
    pack_minutes: int | None = Field(
        None, ge=0, le=600, description="to place, fill, close and label such goods; the shop's usual unless given"
    )
    ready_boxes: list[ReadyBoxEntry] = Field(
        default_factory=list, max_length=8, description="sizes and cases that are sold ready for such goods"
    )
    parts: list[PartEntry] = Field(min_length=1, max_length=40)
    steps: list[StepEntry] = Field(default_factory=list, max_length=60)

    def check(self) -> KindFile:
        """Itself. Raises BadInput for two steps of one name."""
        ids = [step.id for step in self.steps]
        for n, step in enumerate(ids):
            if step in ids[:n]:
                raise BadInput("twice the same step", read=step, allowed="a name of its own", field=f"steps[{n}].id")
        return self


def read_kind(content: Mapping[str, Any]) -> KindFile:
    """A kind from its values. Raises BadInput naming the field."""
    try:
        return KindFile.model_validate(content).check()
    except ValidationError as error:
        raise next(complaints(error, KindFile)) from error


@lru_cache(maxsize=1)
def shipped_kinds() -> tuple[KindFile, ...]:
    """The kinds that come with the product, by title."""
    folder = files("fardo.files").joinpath("kinds")
    found = []
    for path in folder.iterdir():
        if path.name.endswith(".toml"):
            try:
                found.append(read_kind(tomllib.loads(path.read_text("utf-8"))))
            except (BadInput, tomllib.TOMLDecodeError) as fault:
                raise ValueError(f"{path.name}: {fault}") from fault
    return tuple(sorted(found, key=lambda kind: kind.title))


def start_job(kind: KindFile | None, title: str, shop: ShopFile) -> JobFile:
    """A job as it is begun: the kind's parts with its usual steps taken, and the shop's habits on the list."""
    habits = [habit.model_copy(deep=True) for habit in shop.habits]
    if kind is None:
        return JobFile(title=title, extras=habits)
    job = JobFile(
        title=title or kind.title,
        kind=kind.code,
        parts=_guessed(kind.parts),
        take_apart=[
            step.model_copy(update={"chosen": False, "done": False, "frees": _guessed(step.frees)})
            for step in kind.steps
        ],
        checklist=list(kind.checks),
        extras=[*habits, *(extra.model_copy(deep=True) for extra in kind.extras)],
        liner=kind.liner,
        pack_minutes=kind.pack_minutes,
        board=kind.board,
        fill=FillWishEntry(loose=None if kind.fill.loose else False, full=kind.fill.full),
        questions=list(kind.questions),
        ready_boxes=[one.model_copy(deep=True) for one in kind.ready_boxes],
    )
    for step in kind.steps:
        if step.chosen:
            job = take_step(job, step.id, True, shop.to_core())
    return job


def with_parcel(job: JobFile, parcel: Parcel, units: Units) -> JobFile:
    """A job whose goods are of a parcel's size and weight and go where it goes."""
    a, b, c = (_typed(side, units) for side in parcel.sizes)
    weight = show_mass(parcel.weight, units, "nearest")
    part = PartEntry(
        weight=weight.text if weight.exact else f"{parcel.weight.grams:.10g} g",
        shape=box_shape(length=a, width=b, height=c),
    )
    ship = Ship(origin=parcel.origin, to=parcel.destination, residential=parcel.residential)
    return job.model_copy(update={"parts": [part], "ship": ship})


def _typed(side: Length, units: Units) -> str:
    shown = show_length(side, units, "nearest")
    return shown.text if shown.exact else f"{side.mm:.10g} mm"


def take_step(job: JobFile, step_id: str, take: bool, shop: Shop) -> JobFile:
    """The job with a step taken or left: its parts come off or go back on, the thing itself changes by what the step
    saves and by what they weigh.

    Parts that go back on keep what was measured, for when the step is taken again. A measure that cannot be read, or
    would come to nothing, stays as it is. Raises BadInput for a step the job does not have.
    """
    changed = job.model_copy(deep=True)
    step = next((step for step in changed.take_apart if step.id == step_id), None)
    if step is None:
        allowed = ", ".join(one.id for one in changed.take_apart) or "none; this job has no steps"
        raise BadInput("not a step of this job", read=step_id, allowed=allowed, field="step")
    if step.chosen == take:
        return changed
    step.chosen = take
    step.done = step.done and take
    if take:
        freed = [part.model_copy(deep=True, update={"off_by": step.id}) for part in step.frees]
        changed.parts += freed
    else:
        back = [part for part in changed.parts if part.off_by == step.id]
        if back:
            step.frees = back
        changed.parts = [part for part in changed.parts if part.off_by != step.id]
    if changed.parts:
        target = next((part for part in changed.parts if part.name == step.of), None) if step.of else changed.parts[0]
        if target is not None:
            _resize(target, step, take, shop.units)
        _weigh(changed.parts[0], step.frees, take, shop.units)
    return changed


def _guessed(parts: list[PartEntry]) -> list[PartEntry]:
    return [part.model_copy(deep=True, update={"guessed": True}) for part in parts]


def steps_of(job: JobFile) -> tuple[TakeApartStep, ...]:
    """The steps that are taken, in their order."""
    return tuple(
        TakeApartStep(s.id, s.do, s.tool, s.turn, s.caution, s.keep, s.back, tuple(part.name for part in s.frees))
        for s in job.take_apart
        if s.chosen
    )


def kind_of_job(job: JobFile, code: str, title: str, was: KindFile | None) -> KindFile:
    """A finished job as a kind of its own, with what was measured as its starting sizes."""
    said = (was or KindFile(code=code, title=title, parts=[PartEntry()])).model_copy(deep=True)
    return said.model_copy(
        update={
            "code": code,
            "title": title,
            "parts": [_as_kept(part) for part in job.parts if part.off_by is None] or [PartEntry()],
            "steps": [_step_as_kept(step, job) for step in job.take_apart],
            "extras": [extra.model_copy(deep=True) for extra in job.extras],
            "checks": list(job.checklist),
            "liner": job.liner,
            "pack_minutes": job.pack_minutes,
            "board": job.board,
            "questions": list(job.questions),
            "ready_boxes": [one.model_copy(deep=True) for one in job.ready_boxes],
        }
    ).check()


def code_of(title: str) -> str:
    """The code that a kind gets from its title: its Latin letters and figures, or where it has none its letters' own
    numbers, so that every title has one.

    >>> code_of("Flügelhorn, klein"), code_of("琴")
    ('flugelhorn-klein', 'k-7434')
    """
    plain = normalize("NFKD", title).encode("ascii", "ignore").decode().lower()
    code = re.sub(r"[^a-z0-9]+", "-", plain).strip("-")
    if not re.search(r"[a-z0-9]", code):
        code = "k-" + "-".join(f"{ord(sign):x}" for sign in title if not sign.isspace())
    return code[:38].strip("-")


def _step_as_kept(step: StepEntry, job: JobFile) -> StepEntry:
    freed = [part for part in job.parts if part.off_by == step.id] or step.frees
    return step.model_copy(update={"done": False, "frees": [_as_kept(part) for part in freed]})


def _as_kept(part: PartEntry) -> PartEntry:
    return part.model_copy(deep=True, update={"photos": [], "off_by": None, "guessed": False})


def _resize(part: PartEntry, step: StepEntry, taken: bool, units: Units) -> None:
    changes = [*((name, value, taken) for name, value in step.saves.items()),
               *((name, value, not taken) for name, value in step.adds.items())]  # fmt: skip
    for name, value, less in changes:
        typed = getattr(part.shape, name, None)
        if typed is None or typed == "":
            continue
        try:
            after = side_after(to_length(typed, units, name), to_length(value, units, name), less)
        except BadInput:
            continue
        if after is not None:
            setattr(part.shape, name, _text(after, units))


def _weigh(part: PartEntry, freed: list[PartEntry], taken: bool, units: Units) -> None:
    try:
        off = [(to_mass(one.weight, units, "weight"), _count(one)) for one in freed if one.weight not in (None, "")]
        if not off or part.weight in (None, ""):
            return
        after = weight_after(to_mass(part.weight, units, "weight"), _count(part), off, taken)
    except BadInput:
        return
    if after is not None:
        shown = show_mass(after, units, "nearest")
        part.weight = shown.text if shown.exact else after.grams


def _count(part: PartEntry) -> int:
    return to_count(part.count, "count", MOST_OF_ONE)


def _text(length: Length, units: Units) -> str | float:
    """As it is typed, where that says it exactly; else as a number."""
    shown = show_length(length, units, "nearest", FINEST[units])
    return shown.text if shown.exact else length.mm
