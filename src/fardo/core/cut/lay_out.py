"""A cutting plan: which blanks are cut from which sheet, where, and in what order the fence is set.

Two tools. A saw or a straightedge cuts through from edge to edge (guillotine cuts), so every piece is freed by cuts
that part a rest of the sheet in two. A knife cuts freely, and may get more out of a sheet. Blanks keep the way their
flutes run where it matters; a saw's kerf is lost at every cut. The guillotine plans are found by placing the pieces in
many orders, each in the rest it fits best, and parting that rest both ways; the plan with fewest sheets is kept, of
these the one with fewest fence changes. Where only a knife could do with fewer sheets, CP-SAT of OR-Tools looks for it.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import dataclass
from math import gcd

import numpy as np

from fardo.core.board.grade import Sheet
from fardo.core.cut.drawing import Flutes, Point
from fardo.core.cut.nest import ways_on
from fardo.core.cut.order import Cut, CutSearch, Rect
from fardo.core.quantity import ZERO, Length
from fardo.core.refusal import NoAnswer

_ORDERS = 400  # how many orders of the pieces are tried, for a dozen pieces and fewer
_WORK = 2400  # orders times pieces, for more
_SOLVER_WORK = 1.5  # of CP-SAT, in its own measure of work, so that it gives the same plan on every machine
_MOST_EQUAL = 400  # plans of as many sheets that are looked at for the fence
_MOST_FREE = 24  # pieces CP-SAT is asked about; with more a knife gains next to nothing
_MOST_STATES_IN_ALL = 12_000  # of all these searches for one plan; a quick order does for the sheets after that


@dataclass(frozen=True, slots=True)
class CutPiece:
    """One blank to be cut.

    Args:
        name: of the blank.
        of: what it belongs to, the job's title say.
    """

    name: str
    size: Point
    flutes: Flutes
    of: str = ""


@dataclass(frozen=True, slots=True)
class PlacedPiece:
    """A piece where it lies on its sheet, `turned` a quarter where its own length runs across the sheet."""

    piece: CutPiece
    at: Rect
    turned: bool


@dataclass(frozen=True, slots=True)
class SheetPlan:
    """A sheet, what is cut from it, the cuts in the order that changes the fence least, and what is left."""

    sheet: Sheet
    placed: tuple[PlacedPiece, ...]
    cuts: tuple[Cut, ...]
    left: tuple[Rect, ...]

    def worth_keeping(self, least: Length) -> tuple[Rect, ...]:
        """The off-cuts whose shorter side is so long, largest first."""
        kept = [rest for rest in self.left if min(rest.length, rest.width) >= least]
        return tuple(sorted(kept, key=lambda rest: -rest.area_nm2))

    @property
    def fence_changes(self) -> int:
        """How often the fence is set, the first time with it."""
        return sum(n == 0 or cut.fence != self.cuts[n - 1].fence for n, cut in enumerate(self.cuts))


@dataclass(frozen=True, slots=True)
class CuttingPlan:
    """What is cut from which sheet.

    Args:
        sheets: in the order they are cut.
        free: whether a knife is needed, as some cuts do not go through.
        least: the number of sheets below which nothing can be, by area.
    """

    sheets: tuple[SheetPlan, ...]
    free: bool
    least: int

    @property
    def waste(self) -> float:
        """The share of the sheets' board that is no blank, 0 to 1."""
        board = sum(one.sheet.length.nm * one.sheet.width.nm for one in self.sheets)
        used = sum(placed.at.area_nm2 for one in self.sheets for placed in one.placed)
        return 1 - used / board if board else 0.0

    @property
    def fence_changes(self) -> int:
        return sum(one.fence_changes for one in self.sheets)


def plan_cuts(
    pieces: Sequence[CutPiece], sheets: Sequence[Sheet], kerf: Length = ZERO, knife: bool = False, seed: int = 0
) -> CuttingPlan:
    """The cutting plan with fewest whole sheets found; off-cuts are used up first.

    Args:
        sheets: of one board, those in stock.
        kerf: lost at every cut.
        knife: whether cuts need not go through.

    Raises: NoAnswer naming a piece that no sheet takes, or where the stock does not do for all.
    """
    if not pieces:
        return CuttingPlan((), False, 0)
    for piece in pieces:
        if not any(_fits(piece, sheet) for sheet in sheets):
            raise NoAnswer(f"no sheet takes the {piece.name}{' of ' + piece.of if piece.of else ''}")
    best = min((plan for plan in _by_sheet(pieces, sheets, kerf, seed)), key=_cost, default=None)
    if best is None:
        raise NoAnswer("there are not enough sheets in stock for all of it")
    if knife and len(best.sheets) > best.least and len(pieces) <= _MOST_FREE:
        freed = _by_knife(pieces, best)
        if freed is not None:
            return freed
    return best


def _cost(plan: CuttingPlan) -> tuple[int, int, int, int]:
    """Whole sheets first, then the board they take, then how often the fence is set, then the largest rest kept."""
    whole = [one.sheet for one in plan.sheets if not one.sheet.offcut]
    largest = max((rest.area_nm2 for one in plan.sheets for rest in one.left), default=0)
    return len(whole), sum(s.length.nm * s.width.nm for s in whole), plan.fence_changes, -largest


def _fits(piece: CutPiece, sheet: Sheet) -> bool:
    return any(a <= sheet.length and b <= sheet.width for a, b in _lying(piece, sheet))


def _lying(piece: CutPiece, sheet: Sheet) -> Iterator[Point]:
    for turned in ways_on(piece.flutes, sheet):
        yield (piece.size[1], piece.size[0]) if turned else piece.size


def _by_sheet(pieces: Sequence[CutPiece], sheets: Sequence[Sheet], kerf: Length, seed: int) -> Iterator[CuttingPlan]:
    """Plans with each of the whole sheets as the one that is taken, off-cuts and then others where it runs out."""
    there = [sheet for sheet in sheets if sheet.count != 0]
    kinds = [sheet for sheet in there if not sheet.offcut]
    offcuts = sorted((sheet for sheet in there if sheet.offcut), key=lambda s: s.length.nm * s.width.nm)
    for first in kinds or offcuts[:1]:
        others = [sheet for sheet in kinds if sheet is not first]
        ranked = [*offcuts, *([first] if not first.offcut else []), *others]
        yield from _by_order(pieces, ranked, kerf, np.random.default_rng(seed))


def _by_order(
    pieces: Sequence[CutPiece], sheets: Sequence[Sheet], kerf: Length, draw: np.random.Generator
) -> Iterator[CuttingPlan]:
    """Ever better plans."""
    least = _least_sheets(pieces, sheets)
    found: tuple[int, int] | None = None
    best: tuple[int, int, int, int] | None = None
    equal, search = 0, CutSearch(_MOST_STATES_IN_ALL)
    for n, order in enumerate(_orders(pieces, draw)):
        for fit, part in _RULES:
            laid = _place_all(order, sheets, kerf, fit, part)
            if laid is None or (found is not None and laid.cost > found):
                continue
            equal = equal + 1 if laid.cost == found else 0
            found = laid.cost
            if equal > _MOST_EQUAL or (best is not None and laid.cost_at_best >= best):
                continue
            plan = laid.plan(least, search)
            if best is None or _cost(plan) < best:
                best = _cost(plan)
                yield plan
        # No sheet to save any more: a few orders for the fence are enough.
        if found is not None and found[0] <= least and n >= _ORDERS // 16:
            return


def _least_sheets(pieces: Sequence[CutPiece], sheets: Sequence[Sheet]) -> int:
    """By area: what the off-cuts do not take at best, on the largest sheet."""
    whole = max((s.length.nm * s.width.nm for s in sheets if not s.offcut), default=0)
    spare = sum(s.length.nm * s.width.nm * (s.count or 1) for s in sheets if s.offcut)
    rest = sum(piece.size[0].nm * piece.size[1].nm for piece in pieces) - spare
    return max(0, -(-rest // whole)) if whole else 0


def _orders(pieces: Sequence[CutPiece], draw: np.random.Generator) -> Iterator[list[CutPiece]]:
    keys: tuple[Callable[[CutPiece], int], ...] = (
        lambda p: -p.size[0].nm * p.size[1].nm, lambda p: -max(p.size[0].nm, p.size[1].nm),
        lambda p: -(p.size[0].nm + p.size[1].nm), lambda p: -min(p.size[0].nm, p.size[1].nm),
        lambda p: -p.size[1].nm, lambda p: -p.size[0].nm,
    )  # fmt: skip
    seen: set[tuple[tuple[Point, Flutes], ...]] = set()

    def is_new(order: list[CutPiece]) -> bool:
        alike = tuple((piece.size, piece.flutes) for piece in order)
        new = alike not in seen
        seen.add(alike)
        return new

    for key in keys:
        if is_new(order := sorted(pieces, key=lambda p: (key(p), p.name, p.of))):
            yield order
    number = max(len(keys), min(_ORDERS, _WORK // len(pieces))) - len(keys)
    for n in range(number):
        key = keys[n % len(keys)]
        # Nearly by size: large ones first mostly does best, but not always.
        blur = 0.1 + 0.9 * (n / number)
        noise = 1 + blur * (draw.random(len(pieces)) - 0.5)
        rank = sorted(range(len(pieces)), key=lambda k: (key(pieces[k]) * noise[k], k))
        if is_new(order := [pieces[k] for k in rank]):
            yield order


@dataclass(slots=True)
class _Rest:
    """A rest of a sheet in whole nanometres, and the cut that freed it."""

    sheet: int
    x: int
    y: int
    a: int
    b: int
    after: int | None


_Fit = Callable[[int, int, int, int], tuple[int, int]]
_FITS: tuple[_Fit, ...] = (
    lambda a, b, w, h: (min(a - w, b - h), max(a - w, b - h)),
    lambda a, b, w, h: (a * b - w * h, min(a - w, b - h)),
    lambda a, b, w, h: (max(a - w, b - h), min(a - w, b - h)),
)
_Part = Callable[[int, int, int, int], bool]
_PARTS: tuple[_Part, ...] = (  # whether the first cut runs across the rest
    lambda a, b, w, h: a - w > b - h,
    lambda a, b, w, h: a - w <= b - h,
    lambda a, b, w, h: True,
    lambda a, b, w, h: False,
)
_RULES = tuple((fit, part) for fit in _FITS for part in _PARTS)


@dataclass(slots=True)
class _Laid:
    """Sheets as pieces are placed on them, one entry a sheet."""

    taken: list[Sheet]
    placed: list[list[PlacedPiece]]
    cuts: list[list[Cut]]
    rests: list[_Rest]

    @property
    def cost(self) -> tuple[int, int]:
        """Whole sheets, and the board they are."""
        whole = [sheet for sheet in self.taken if not sheet.offcut]
        return len(whole), sum(sheet.length.nm * sheet.width.nm for sheet in whole)

    @property
    def cost_at_best(self) -> tuple[int, int, int, int]:
        """As `_cost` of its plan, which cannot be less: on a sheet every setting of the fence is made once at least."""
        settings = sum(len({cut.fence for cut in cuts}) for cuts in self.cuts)
        return *self.cost, settings, -max((rest.a * rest.b for rest in self.rests), default=0)

    def open(self, sheet: Sheet) -> _Rest:
        self.taken.append(sheet)
        self.placed.append([])
        self.cuts.append([])
        rest = _Rest(len(self.taken) - 1, 0, 0, sheet.length.nm, sheet.width.nm, None)
        self.rests.append(rest)
        return rest

    def plan(self, least: int, search: CutSearch) -> CuttingPlan:
        left: list[list[Rect]] = [[] for _ in self.taken]
        for rest in self.rests:
            left[rest.sheet].append(Rect(Length(rest.x), Length(rest.y), Length(rest.a), Length(rest.b)))
        return CuttingPlan(
            tuple(
                SheetPlan(sheet, tuple(self.placed[n]), search.order(self.cuts[n]), tuple(left[n]))
                for n, sheet in enumerate(self.taken)
            ),
            False, least,
        )  # fmt: skip


def _place_all(
    order: Sequence[CutPiece], sheets: Sequence[Sheet], kerf: Length, fit: _Fit, part: _Part
) -> _Laid | None:
    """Every piece in the rest it fits best; a new sheet where there is none. None where the sheets run out."""
    there = [sheet.count if sheet.count is not None else (1 if sheet.offcut else len(order)) for sheet in sheets]
    laid = _Laid([], [], [], [])
    for piece in order:
        at = _best_rest(piece, laid.rests, laid.taken, fit)
        if at is None:
            opened = next((n for n, sheet in enumerate(sheets) if there[n] and _fits(piece, sheet)), None)
            if opened is None:
                return None
            there[opened] -= 1
            at = _best_rest(piece, [laid.open(sheets[opened])], laid.taken, fit)
            assert at is not None  # it fits the sheet
        rest, w, h, turned = at
        laid.rests.remove(rest)
        where = Rect(Length(rest.x), Length(rest.y), Length(w), Length(h))
        laid.placed[rest.sheet].append(PlacedPiece(piece, where, turned))
        laid.rests += _parted(rest, w, h, kerf.nm, part, laid.cuts[rest.sheet])
    return laid


def _best_rest(
    piece: CutPiece, rests: Iterable[_Rest], taken: Sequence[Sheet], fit: _Fit
) -> tuple[_Rest, int, int, bool] | None:
    best: tuple[tuple[int, int], _Rest, int, int, bool] | None = None
    for rest in rests:
        for turned in ways_on(piece.flutes, taken[rest.sheet]):
            w, h = piece.size[0].nm, piece.size[1].nm
            if turned:
                w, h = h, w
            if w <= rest.a and h <= rest.b:
                score = fit(rest.a, rest.b, w, h)
                if best is None or score < best[0]:
                    best = (score, rest, w, h, turned)
    return best[1:] if best else None


def _parted(rest: _Rest, w: int, h: int, kerf: int, part: _Part, cuts: list[Cut]) -> Iterator[_Rest]:
    """Cuts a piece out of the lower left corner of a rest, and gives what is left of it."""
    whole = Rect(Length(rest.x), Length(rest.y), Length(rest.a), Length(rest.b))
    after = rest.after
    across = part(rest.a, rest.b, w, h)
    for first in (across, not across):
        if first and w < rest.a:
            cuts.append(Cut(whole, True, Length(w), after))
            after = len(cuts) - 1
            if rest.a - w - kerf > 0:
                yield _Rest(rest.sheet, rest.x + w + kerf, rest.y, rest.a - w - kerf, whole.width.nm, after)
            whole = Rect(whole.x, whole.y, Length(w), whole.width)
        elif not first and h < rest.b:
            cuts.append(Cut(whole, False, Length(h), after))
            after = len(cuts) - 1
            if rest.b - h - kerf > 0:
                yield _Rest(rest.sheet, rest.x, rest.y + h + kerf, whole.length.nm, rest.b - h - kerf, after)
            whole = Rect(whole.x, whole.y, whole.length, Length(h))


def _by_knife(pieces: Sequence[CutPiece], best: CuttingPlan) -> CuttingPlan | None:
    """Fewer sheets of the kind `best` takes, where CP-SAT finds that free cuts allow it."""
    sheet = best.sheets[-1].sheet
    if any(one.sheet != sheet for one in best.sheets):
        return None
    for number in range(best.least, len(best.sheets)):
        laid = lay_freely(pieces, sheet, number)
        if laid is not None:
            return CuttingPlan(tuple(SheetPlan(sheet, one, (), ()) for one in laid), True, best.least)
    return None


def lay_freely(pieces: Sequence[CutPiece], sheet: Sheet, number: int) -> list[tuple[PlacedPiece, ...]] | None:
    """All pieces on so many sheets, overlapping nowhere, as CP-SAT finds it; None where it finds nothing in time."""
    from ortools.sat.python import cp_model  # it takes a moment to load

    model = cp_model.CpModel()
    # The sheets stand end to end on one strip; a piece chooses its sheet.
    # A packing pushed into its corner stands on sums of the pieces' sides, so their common measure is fine enough.
    unit = gcd(*(side.nm for piece in pieces for side in piece.size))
    a, b = sheet.length.nm // unit, sheet.width.nm // unit
    spots = []
    boxes_x, boxes_y = [], []
    for n, piece in enumerate(pieces):
        ways = ways_on(piece.flutes, sheet)
        turned = model.new_bool_var(f"turned {n}")
        if ways == (False,) or piece.size[0] == piece.size[1]:
            model.add(turned == 0)
        if ways == (True,):
            model.add(turned == 1)
        w, h = piece.size[0].nm // unit, piece.size[1].nm // unit
        on = model.new_int_var(0, number - 1, f"sheet {n}")
        x, y = model.new_int_var(0, a, f"x {n}"), model.new_int_var(0, b, f"y {n}")
        along, up = w + (h - w) * turned, h + (w - h) * turned
        model.add(x + along <= a)
        model.add(y + up <= b)
        at = model.new_int_var(0, a * number, f"at {n}")
        model.add(at == x + a * on)
        size_x, size_y = model.new_int_var(0, a, f"w {n}"), model.new_int_var(0, b, f"h {n}")
        model.add(size_x == along)
        model.add(size_y == up)
        end_x, end_y = model.new_int_var(0, a * number, f"ex {n}"), model.new_int_var(0, b, f"ey {n}")
        boxes_x.append(model.new_interval_var(at, size_x, end_x, f"ix {n}"))
        boxes_y.append(model.new_interval_var(y, size_y, end_y, f"iy {n}"))
        spots.append((on, x, y, turned))
    model.add_no_overlap_2d(boxes_x, boxes_y)
    solver = cp_model.CpSolver()
    solver.parameters.max_deterministic_time = _SOLVER_WORK
    solver.parameters.num_workers = 1
    if solver.solve(model) not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return None
    laid: list[list[PlacedPiece]] = [[] for _ in range(number)]
    for piece, (on, x, y, turned) in zip(pieces, spots, strict=True):
        flip = bool(solver.value(turned))
        size = (piece.size[1], piece.size[0]) if flip else piece.size
        where = Rect(Length(solver.value(x) * unit), Length(solver.value(y) * unit), *size)
        laid[solver.value(on)].append(PlacedPiece(piece, where, flip))
    return [tuple(one) for one in laid]
