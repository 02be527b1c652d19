"""Kits of goods taken apart, for measuring the arranging engine: kinds of goods in honest shapes, sizes made up.

Each part is what a person would measure: the hollow of a cover, the hole of a rim, the bend of a handle are in it where
the thing has them. Spoked wheels are closed, cases are full, what is stuffed is not hollow.
"""

from __future__ import annotations

from itertools import pairwise
from typing import Any

Part = dict[str, Any]
FOAM = [{"material": "foam-thin"}]
BUBBLE = [{"material": "bubble-small"}]
TISSUE = [{"material": "tissue"}]


def _part(name: str, shape: Part, weight: str, gap: str = "1/2 in", count: int = 1, **more: Any) -> Part:
    return {"name": name, "count": count, "weight": weight, "gap": gap, "shape": shape, **more}


def _box(length: float, width: float, height: float) -> Part:
    return {"kind": "box", "length": _in(length), "width": _in(width), "height": _in(height)}


def _rod(diameter: float, length: float) -> Part:
    return {"kind": "cylinder", "diameter": _in(diameter), "length": _in(length)}


def _disc(diameter: float, thickness: float) -> Part:
    return {"kind": "disc", "diameter": _in(diameter), "thickness": _in(thickness)}


def _ring(outer: float, inner: float, thickness: float) -> Part:
    return {"kind": "ring", "outer_diameter": _in(outer), "inner_diameter": _in(inner), "thickness": _in(thickness)}


def _taper(a: float, b: float, length: float) -> Part:
    return {"kind": "taper", "diameter_a": _in(a), "diameter_b": _in(b), "length": _in(length)}


def _egg(length: float, width: float, height: float) -> Part:
    return {"kind": "ellipsoid", "length": _in(length), "width": _in(width), "height": _in(height)}


def _bars(diameter: float, *lines: list[tuple[float, float, float]]) -> Part:
    members = [[[_in(c) for c in a], [_in(c) for c in b]] for line in lines for a, b in pairwise(line)]
    return {"kind": "bars", "diameter": _in(diameter), "members": members}


def _several(*pieces: tuple[Part, tuple[float, float, float]]) -> Part:
    return {"kind": "compound", "of": [{"shape": shape, "at": [_in(c) for c in at]} for shape, at in pieces]}


def _outline(thickness: float, *points: tuple[float, float]) -> Part:
    return {"kind": "outline", "points": [[_in(x), _in(y)] for x, y in points], "thickness": _in(thickness)}


def _tub(length: float, width: float, height: float, wall: float) -> Part:
    """A floor and four walls: a cover, a drawer, a tray of wood."""
    return _several(
        (_box(length, width, wall), (0, 0, 0)),
        (_box(length, wall, height), (0, 0, 0)),
        (_box(length, wall, height), (0, width - wall, 0)),
        (_box(wall, width, height), (0, 0, 0)),
        (_box(wall, width, height), (length - wall, 0, 0)),
    )


def _pot(outer: float, height: float, wall: float) -> Part:
    """A floor and a round wall."""
    return _several((_disc(outer, wall), (0, 0, 0)), (_ring(outer, outer - 2 * wall, height), (0, 0, 0)))


def _in(value: float) -> str:
    return f"{value:g} in"


KITS: dict[str, list[Part]] = {
    "bicycle, frame bare": [
        _part("frame", _bars(1.5, [(0, 0, 0), (21, 0, 2), (22, 0, 22), (2, 0, 20), (0, 0, 0)],
                             [(21, 0, 2), (38, 0, 0), (22, 0, 22)]), "7 lb", protect=FOAM),
        _part("wheel", _several((_disc(27, 1.5), (0, 0, 1.5)), (_rod(2.5, 4.5), (12.25, 12.25, 0))), "3 lb 8 oz",
              count=2, protect=FOAM),
        _part("fork", _several((_rod(1.5, 8), (2.25, 0, 15)), (_box(6, 1.5, 1.5), (0, 0, 14)),
                               (_rod(1.25, 15), (0, 0, 0)), (_rod(1.25, 15), (4.75, 0, 0))), "2 lb", protect=FOAM),
        _part("bars", _bars(1.25, [(0, 0, 0), (0, 5, 0), (16, 5, 0), (16, 0, 0)], [(0, 0, 0), (0, 0, 5)],
                            [(16, 0, 0), (16, 0, 5)]), "1 lb 4 oz", protect=FOAM),
        _part("saddle on its post", _several((_box(11, 6, 2.5), (0, 0, 9)), (_rod(1.25, 10), (4, 2.4, 0))), "1 lb 6 oz",
              protect=BUBBLE),
        _part("pedal", _box(4, 3.5, 1.25), "7 oz", count=2),
        _part("small parts", _box(7, 5, 2), "12 oz"),
    ],
    "scooter, folded stem off": [
        _part("deck", _several((_box(24, 6, 3), (5, 0, 3)), (_disc(9, 2), (0, -0.5, 0)), (_box(4, 3, 8), (27, 1.5, 3))),
              "14 lb", protect=FOAM),
        _part("stem with bars", _bars(1.75, [(0, 0, 0), (38, 0, 0)], [(38, -9, 0), (38, 9, 0)]), "5 lb", protect=FOAM),
        _part("front wheel with fork", _several((_disc(9, 2.5), (0, 0, 1)), (_box(12, 1, 4.5), (3, 4, 0))), "4 lb",
              protect=FOAM),
        _part("mudguard", _several((_box(9, 3, 0.5), (0, 0, 4)), (_box(0.5, 3, 4.5), (8.5, 0, 0))), "10 oz"),
        _part("charger", _box(6, 3, 2), "1 lb 8 oz"),
    ],
    "two wheels, hubs in": [
        _part("wheel", _several((_disc(26, 1.5), (0, 0, 2)), (_rod(4, 5.5), (11, 11, 0))), "4 lb", count=2,
              protect=FOAM),
        _part("tyre", _ring(27, 23, 2), "2 lb", count=2),
        _part("tube, boxed", _box(5, 3, 2), "8 oz", count=2),
        _part("rotor with its cards", _ring(7.5, 2, 0.5), "6 oz", count=2),
    ],
    "golf clubs out of their bag": [
        _part("bag", _rod(10, 35), "5 lb 8 oz", protect=FOAM),
        _part("wood", _several((_rod(0.75, 42), (0, 1.5, 0)), (_egg(4.75, 4, 2.5), (-0.5, 0, 41))), "12 oz", count=3,
              protect=BUBBLE),
        _part("iron", _several((_rod(0.75, 36), (0, 0.5, 0)), (_box(3.5, 1.5, 2.5), (-0.25, 0, 35))), "14 oz", count=5,
              protect=BUBBLE),
        _part("umbrella", _taper(2.25, 1.25, 34), "1 lb 4 oz"),
    ],
    "riding saddle, stirrups off": [
        _part("saddle", _several((_egg(18, 12, 6), (0, 4, 12)), (_box(12, 3, 14), (3, 0, 0)), (_box(12, 3, 14), (3,
              17, 0)),
                                 (_box(4, 10, 5), (13, 5, 15)), (_box(12, 20, 3), (3, 0, 11))), "11 lb",
              gap="1 1/2 in", protect=TISSUE, rules={"this_side_up": True}),
        _part("stirrup", _bars(0.75, [(0, 0, 0), (4.5, 0, 0), (3.5, 0, 5), (1, 0, 5), (0, 0, 0)]), "1 lb", count=2,
              protect=BUBBLE),
        _part("leathers, rolled", _rod(5, 1.5), "1 lb", count=2),
        _part("girth, rolled", _rod(6, 4), "1 lb 8 oz"),
        _part("pad, folded", _box(14, 11, 2), "1 lb 4 oz"),
        _part("bridle, boxed", _box(9, 7, 3), "2 lb"),
    ],
    "record deck": [
        _part("plinth", _several((_box(17, 13.5, 4), (0, 0, 0)), (_box(2.5, 9, 1.5), (14, 2, 4))), "9 lb",
              gap="1 1/2 in",
              fragility="delicate", protect=BUBBLE, rules={"this_side_up": True}),
        _part("cover", _tub(17.5, 14, 3, 0.25), "3 lb", gap="1 in", protect=FOAM),
        _part("platter", _disc(12.25, 1.25), "4 lb", gap="1/2 in", protect=FOAM, rules={"keep_flat": True}),
        _part("mat", _disc(11.75, 0.25), "10 oz", gap="1/4 in"),
        _part("counterweight, boxed", _box(3, 2, 2), "6 oz"),
        _part("headshell, boxed", _box(3, 2, 1), "2 oz"),
        _part("leads", _ring(7, 3, 1), "8 oz"),
    ],
    "globe lamp": [
        _part("globe", _several((_egg(10, 10, 10), (0, 0, 0.75)), (_rod(4, 2), (3, 3, 0))), "3 lb", gap="2 in",
              fragility="very-delicate", protect=BUBBLE, rules={"no_load_on_top": True}),
        _part("fitting", _several((_disc(8, 1.5), (0, 0, 0)), (_rod(1, 16), (3.5, 3.5, 1.5)), (_rod(4, 2), (2, 2, 17))),
              "4 lb", gap="1 in", protect=FOAM),
        _part("shade ring", _ring(12, 10.5, 2), "14 oz", gap="1/2 in", protect=FOAM),
        _part("arm", _bars(0.75, [(0, 0, 0), (9, 0, 0), (9, 0, 6)]), "10 oz", count=3, protect=FOAM),
        _part("bulb, boxed", _box(2.5, 2.5, 4.5), "3 oz"),
    ],
    "pottery, a table set": [
        _part("bowl", _pot(11, 4.5, 0.5), "3 lb 8 oz", gap="1 in", fragility="delicate", protect=BUBBLE),
        _part("small bowl", _pot(6.5, 3, 0.375), "1 lb", gap="1/2 in", count=2, protect=FOAM),
        _part("plate", _disc(10.5, 1), "1 lb 12 oz", gap="1/2 in", count=2, protect=FOAM),
        _part("jug", _several((_rod(5, 8), (0, 0, 0)), (_bars(0.75, [(0, 0, 0), (2, 0, 0), (2, 0, 4), (0, 0, 4)]),
                              (4.5, 2.1, 2))), "2 lb 4 oz", gap="1 in", protect=BUBBLE),
        _part("cup", _several((_rod(3.5, 3.5), (0, 0, 0)), (_bars(0.5, [(0, 0, 0), (1, 0, 0), (1, 0, 1.75), (0, 0,
              1.75)]),
                              (3.25, 1.5, 1))), "9 oz", gap="1/2 in", count=4, protect=FOAM),
    ],
    "articulated model": [
        _part("trunk", _several((_egg(19, 13, 10), (0, 0, 0)), (_rod(3.5, 6), (17, 4.75, 3)), (_egg(9, 12, 9), (21,
              0.5, 0.5))),
              "9 lb", gap="2 in", fragility="moderately-delicate", protect=TISSUE),
        _part("head", _egg(9, 6, 7.5), "2 lb 8 oz", gap="2 in", fragility="delicate", protect=BUBBLE,
              rules={"no_load_on_top": True}),
        _part("upper arm", _taper(3.25, 2.25, 13), "14 oz", gap="1/2 in", count=2, protect=FOAM),
        _part("forearm with hand", _several((_taper(2.5, 1.75, 10), (0.5, 0, 0)), (_box(3.5, 1.25, 7), (0, 0.6, 9.5))),
              "14 oz", gap="3/4 in", count=2, protect=FOAM),
        _part("thigh", _taper(4.5, 3.25, 18), "1 lb 10 oz", gap="1/2 in", count=2, protect=FOAM),
        _part("shin with foot", _several((_taper(3, 2, 16), (0, 0.25, 2)), (_box(9, 3.25, 2.5), (0, 0, 0))),
              "1 lb 8 oz",
              gap="3/4 in", count=2, protect=FOAM),
        _part("stand", _bars(1.25, [(0, 9, 0), (18, 9, 0)], [(9, 0, 0), (9, 18, 0)]), "5 lb"),
    ],
    "hammered instrument on legs": [
        _part("body", _outline(3.5, (0, 0), (38, 0), (29, 16), (9, 16)), "12 lb", gap="1 1/2 in",
              fragility="moderately-delicate", protect=BUBBLE),
        _part("leg", _taper(1.75, 1, 20), "14 oz", gap="1/2 in", count=3, protect=FOAM),
        _part("stretcher", _outline(1, (0, 0), (14, 0), (14, 1.5), (8, 1.5), (8, 7), (6, 7), (6, 1.5), (0, 1.5)),
              "1 lb",
              protect=FOAM),
        _part("hammers, tied", _rod(1.5, 10), "4 oz"),
        _part("tuning key", _bars(0.625, [(0, 0, 0), (0, 0, 4), (-1.5, 0, 4)], [(0, 0, 4), (1.5, 0, 4)]), "5 oz"),
        _part("strings, coiled", _ring(6, 3, 1), "6 oz"),
    ],
    "table loom, folded apart": [
        _part("side", _outline(1.5, (0, 0), (22, 0), (22, 3), (12.5, 3), (12.5, 16), (9.5, 16), (9.5, 3), (0, 3)),
              "3 lb",
              count=2, protect=FOAM),
        _part("beam", _several((_rod(2.5, 24), (0.75, 0.75, 0)), (_disc(4, 0.75), (0, 0, 23))), "2 lb", count=2,
              protect=FOAM),
        _part("castle", _bars(1.25, [(0, 0, 0), (0, 0, 8), (22, 0, 8), (22, 0, 0), (0, 0, 0)]), "3 lb 8 oz",
              protect=FOAM),
        _part("shaft", _bars(0.75, [(0, 0, 0), (20, 0, 0), (20, 9, 0), (0, 9, 0), (0, 0, 0)]), "10 oz", count=4),
        _part("reed", _box(22, 4.5, 0.5), "1 lb", protect=FOAM),
        _part("crank", _bars(0.75, [(0, 0, 0), (5, 0, 0), (5, 0, 4)]), "6 oz"),
    ],
    "small engine with its tools": [
        _part("engine", _several((_box(10, 9, 7), (0, 0, 0)), (_rod(6, 5), (2, 1.5, 7)), (_rod(1, 4), (4.5, 4, 12)),
                                 (_box(4, 4, 3), (10, 2.5, 2))), "26 lb", gap="1 in", protect=FOAM,
              rules={"this_side_up": True}),
        _part("guard", _tub(13, 9, 4, 0.375), "2 lb", protect=FOAM),
        _part("handle", _bars(1, [(0, 0, 0), (16, 0, 0), (16, 10, 0), (0, 10, 0)]), "2 lb 4 oz"),
        _part("hose, coiled", _ring(13, 9, 2), "2 lb"),
        _part("crank", _bars(0.875, [(0, 0, 0), (7, 0, 0), (7, 0, 5)]), "1 lb 2 oz"),
        _part("exhaust", _bars(1.5, [(0, 0, 0), (9, 0, 0), (9, 4, 0)]), "1 lb 8 oz"),
        _part("spanner", _box(8, 1.5, 0.5), "10 oz", count=2),
    ],
}  # fmt: skip


def job_of(title: str, parts: list[Part]) -> dict[str, Any]:
    """A kit as a job file."""
    return {
        "format": "fardo-job/1",
        "title": title,
        "ship": {"from": "10440", "to": "73120", "residential": True},
        "parts": parts,
    }
