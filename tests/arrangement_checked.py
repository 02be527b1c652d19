"""An arrangement checked by means the engine does not use: the things' own meshes and a geometry library.

The engine works with convex pieces and directions; here the meshes of the bare things are measured against each other
(least distance between two triangle meshes, manifold3d).
"""

from __future__ import annotations

from itertools import combinations

import numpy as np

from fardo.core.arrange.ask import Arrangement, Ask
from fardo.core.arrange.body import Body, Laid, stance
from fardo.core.goods.shape.solids import block, moved

SIXTY_FOURTH_MM = 25.4 / 64
REACH_MM = 40.0
SLIDE_MM = 4.0


def solid_in_place(body: Body, laid: Laid):
    """The bare thing as it lies, as the geometry library's solid; what counts as a block is one, wrap and all."""
    stood = stance(body, laid.turn)
    at = [corner.mm + inset.mm for corner, inset in zip(laid.at, stood.inset, strict=True)]
    solid = body.shape.solid()
    if body.held == "block":
        grown = [by.mm for by in body.grown]
        solid = block(*(side.mm for side in body.sizes)).translate([-by for by in grown])
    elif body.held == "hull":
        solid = solid.hull()
    return moved(solid, laid.turn, at)


def faults(ask: Ask, answer: Arrangement) -> list[str]:
    """Everything that is wrong with it, in sentences; nothing where all is kept."""
    found: list[str] = []
    laid = {n: one for n, one in enumerate(answer.laid) if one is not None}
    if sorted(answer.order) != sorted(laid):
        found.append(f"goes in {answer.order}, lies {sorted(laid)}")
    solids = {n: solid_in_place(ask.bodies[n], one) for n, one in laid.items()}
    inside = [side.mm for side in answer.inside]
    for n, solid in solids.items():
        body = ask.bodies[n]
        wrap = 0 if body.held == "block" else min(by.mm for by in body.grown)
        before, beyond = (wrap + np.array(side) for side in kept_to_walls(body, laid[n]))
        low, high = np.array(solid.bounding_box()[:3]), np.array(solid.bounding_box()[3:])
        if (low < before - SIXTY_FOURTH_MM).any() or (high > np.array(inside) - beyond + SIXTY_FOURTH_MM).any():
            found.append(f"{body.name} {n} is too near a wall: {low} to {high} of {inside}, {before}, {beyond} kept")
    for i, j in combinations(sorted(solids), 2):
        keep = ask.room(i, j).mm + ask.bodies[i].round + ask.bodies[j].round
        apart = solids[i].min_gap(solids[j], keep + 10)
        shared = (solids[i] ^ solids[j]).volume()
        if apart < keep - SIXTY_FOURTH_MM or shared > 1:
            found.append(
                f"{ask.bodies[i].name} {i} and {ask.bodies[j].name} {j}: {apart:.2f} mm apart, {keep:.2f} kept"
            )
    found += _locked_in(ask, answer, solids)
    return found


def kept_to_walls(body: Body, laid: Laid) -> tuple[list[float], list[float]]:
    """What a thing keeps to the walls before and beyond it along each axis, mm, as its gap says by its names."""
    gap, thin = body.gap, min((2, 1, 0), key=lambda k: body.shape.sizes[k].nm)
    found: tuple[list[float], list[float]] = [], []
    for axis in range(3):
        own = [k for k in range(3) if abs(abs(laid.turn[axis][k]) - 1) < 1e-9]
        # What lies slantwise may show an edge or a face that way.
        by_side = [gap.faces if k == thin else gap.edges for k in (own or range(3))]
        for side, level in zip(found, (gap.below, gap.above), strict=True):
            over_or_under = level if axis == 2 else None
            asked = []
            for named in by_side:
                names = [one for one in (named, over_or_under) if one is not None]
                asked.append(max(names, default=gap.wall).mm)
            side.append(max(asked))
    return found


def _locked_in(ask: Ask, answer: Arrangement, solids) -> list[str]:
    """What could not be let straight down past what is there.

    It is lifted by no more than what lies between the two, so that nothing is passed through unseen; where they touch,
    as they may where no gap is kept, by a little.
    """
    found = []
    for k, later in enumerate(answer.order):
        for earlier in answer.order[:k]:
            top, lifted = solids[earlier].bounding_box()[5], solids[later]
            while (bottom := lifted.bounding_box()[2]) < top:
                apart = lifted.min_gap(solids[earlier], REACH_MM)
                if (lifted ^ solids[earlier]).volume() > 1:
                    names = ask.bodies[later].name, ask.bodies[earlier].name
                    found.append(f"{names[0]} {later} goes in after {names[1]} {earlier} and meets it on the way")
                    break
                lifted = lifted.translate((0, 0, min(max(apart, SLIDE_MM), top - bottom + 1)))
    return found
