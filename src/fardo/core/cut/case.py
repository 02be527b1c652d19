"""The drawing of a case in one piece, inner face up: glue tab, L, W, L, W along it, flaps below and above."""

from __future__ import annotations

from dataclasses import dataclass

from fardo.core.cut.drawing import Blank, Line, Note, Point, chain, cut_along
from fardo.core.cut.fence import FenceSetting
from fardo.core.quantity import ZERO, Length


@dataclass(frozen=True, slots=True)
class CasePanels:
    """Score to score along the blank and across it; `above` is nothing where there are no flaps at the top.

    Args:
        last: the second W, which ends in a cut edge.
        old: corners that were scored before, from the tab's score; they stay in the walls as creases.
        inner: depth of the flaps on the W panels where it is less than the others'.
    """

    tab: Length
    long: Length
    short: Length
    last: Length
    body: Length
    below: Length
    above: Length
    old: tuple[Length, ...] = ()
    inner: Length | None = None

    @property
    def corners(self) -> tuple[Length, Length, Length, Length]:
        """Where it is scored along the blank, from the tab's end."""
        first = self.tab
        return first, first + self.long, first + self.long + self.short, first + self.long * 2 + self.short


def draw_case(name: str, panels: CasePanels) -> Blank:
    p = panels
    x1, x2, x3, x4 = p.corners
    x5 = x4 + p.last
    y1, y2, y3 = p.below, p.below + p.body, p.below + p.body + p.above
    columns = ((x1, x2, False), (x2, x3, True), (x3, x4, False), (x4, x5, True))
    inner = p.below if p.inner is None else p.inner
    shorter = p.below - min(inner, p.below)
    foot = [(x, shorter if short else ZERO) for a, b, short in columns for x in (a, b)]
    over = p.above - min(inner, p.above) if p.inner is not None else ZERO
    head = [(x, y3 - over if short else y3) for a, b, short in reversed(columns) for x in (b, a)]
    taper = Length(min(p.tab.nm, p.body.nm // 4) // 2)  # keeps the tab clear of the flaps
    beside = [(x1, y2)] if p.above.nm else []
    outline = _plain([*foot, *head, *beside, (ZERO, y2 - taper), (ZERO, y1 + taper), (x1, y1)])
    lines = [*cut_along(outline)]
    for y in (y1, y2) if p.above.nm else (y1,):
        lines += [Line("score", (a, y), (b, y)) for a, b, _ in columns]
    lines += [Line("score", (x, y1), (x, y2)) for x in (x1, x2, x3, x4)]
    for x in (x2, x3, x4):
        lines.append(Line("slot", (x, shorter), (x, y1)))
        if p.above.nm:
            lines.append(Line("slot", (x, y2), (x, y3 - over)))
    lines += [Line("old-fold", (x1 + at, y1), (x1 + at, y2)) for at in p.old]
    # Chains stand outermost on sides of their own, where narrow panels' figures have room.
    dimensions = [
        *chain((ZERO, x5), "below", ZERO), *chain((ZERO, x1, x2, x3, x4, x5), "above", y3),
        *chain((ZERO, y3), "left", ZERO), *chain((ZERO, shorter, y1, y2, y3 - over, y3), "right", x5),
    ]  # fmt: skip
    middle = (y1 + y2).half()
    notes = [Note(((a + b).half(), middle), "W" if short else "L") for a, b, short in columns]
    # Over the letter of its wall; where that is lower than its flap, in the flap.
    face = y1.half() if y1 > y2 - y1 else Length((y1.nm + 3 * y2.nm) // 4)
    notes.append(Note(((x1 + x2).half(), face), "inside face up"))
    return Blank(name, (x5, y3), outline, tuple(lines), tuple(dimensions), tuple(notes), "across the blank")


def _plain(points: list[Point]) -> tuple[Point, ...]:
    """Without corners where the outline goes straight on, or that stand on each other."""
    once = [point for n, point in enumerate(points) if point != points[n - 1]]
    return tuple(
        here
        for n, here in enumerate(once)
        if not any(once[n - 1][axis] == here[axis] == once[(n + 1) % len(once)][axis] for axis in (0, 1))
    )


def case_fence(blank: Blank, panels: CasePanels) -> tuple[FenceSetting, ...]:
    """To cut a case in one piece: through, scores, slots, then what only a knife reaches."""
    p, of = panels, f" of the {blank.name}"
    x1, *others = p.corners
    flaps, ends = ("flaps, from both long edges", 2) if p.above.nm else ("flaps, from one long edge", 1)
    settings = [
        FenceSetting(blank.size[0], "through", f"length{of}", 1),
        FenceSetting(blank.size[1], "through", f"width{of}", 1),
        FenceSetting(p.below, "score, inner face", flaps, ends),
        FenceSetting(x1, "score, inner face", "corner 1, from the tab's end", 1),
        *(FenceSetting(x, "score, inner face", f"corner {n}, from the tab's end", 1) for n, x in enumerate(others, 2)),
        *(FenceSetting(x, "slot", f"corner {n}, {'both ends, ' if ends == 2 else ''}up to the flap score", ends)
          for n, x in enumerate(others, 2)),
    ]  # fmt: skip
    if p.inner is not None and p.inner < p.below:
        settings.append(FenceSetting(p.below - p.inner, "knife", "off the ends of the flaps on the W panels", 2 * ends))
    settings.append(FenceSetting(x1, "knife", "flap waste beside the tab off, tab ends tapered", 2 * ends))
    return tuple(settings)
