"""Boxes from the shell: a blank, a used box made over, equal boxes telescoped."""

from __future__ import annotations

from pathlib import Path
from typing import Annotated

import typer
from rich.table import Table

from fardo.answers import made_json, recuts_json, stack_json
from fardo.command.shared import AsJson, DbFile, one_of, open_shop, out, print_json, write
from fardo.core.make import WAYS, Made, School, make_box
from fardo.core.make.allowances import ALLOWANCES, OVERLAP, REFOLD
from fardo.core.make.made_over import Folds, recuts
from fardo.core.make.recut import steps as recut_steps
from fardo.core.make.stack import stack_up
from fardo.core.make.stack import steps as stack_steps
from fardo.core.quantity import Length, Units, read_length, read_sizes, show_length, show_sizes
from fardo.core.refusal import NoAnswer
from fardo.files.drawn import exact_text, in_words
from fardo.files.shop import ShopFile

_CUT_FROM_SHEET = ", ".join(name for name, way in WAYS.items() if way.NEEDS == "sheet")


def blank(
    way: Annotated[str, typer.Option(help=f"One of: {_CUT_FROM_SHEET}.")],
    inside: Annotated[str, typer.Option(help="Inside size: 10.5x8.5x1.5in")],
    board: Annotated[str | None, typer.Option(help="Code of the board, C say.")] = None,
    school: Annotated[str, typer.Option(help="exact or thumb.")] = "exact",
    thumb: Annotated[str | None, typer.Option(help="The rule-of-thumb allowance: 1/2in")] = None,
    slip: Annotated[str | None, typer.Option(help="How much looser the lid is than the tray: 1/16in")] = None,
    allow: Annotated[
        list[str] | None, typer.Option(help="Another allowance as NAME=LENGTH: tab=2in. May be given again.")
    ] = None,
    step: Annotated[
        str, typer.Option(help="Panels go up to this step: 1/16in, 1mm; 'none' keeps them exact.")
    ] = "none",
    as_json: AsJson = False,
    svg: Annotated[Path | None, typer.Option(help="Write SVG here; with several blanks their name is put in.")] = None,
    dxf: Annotated[Path | None, typer.Option(help="Write DXF here.")] = None,
    pdf: Annotated[Path | None, typer.Option(help="Write a cut sheet here.")] = None,
    full: Annotated[bool, typer.Option("--full-size", help="The PDF at 1:1 over several pages.")] = False,
    db: DbFile = None,
) -> None:
    """The blanks for an inside size, with every line and dimension."""
    shop_file, _ = open_shop(db, None)
    shop = shop_file.to_core()
    said = {"thumb": thumb, "slip": slip} | dict(_parted(text) for text in allow or ())
    allowances = shop.allowances.changed(
        {name: _allowance(name, length, shop.units) for name, length in said.items() if length},
        None if step == "none" else read_length(step, shop.units, field="step"),
    )
    taken: School = "thumb" if one_of(school, ("exact", "thumb"), "school") == "thumb" else "exact"
    made = make_box(way, read_sizes(inside, shop.units, field="inside"), shop.grade(board), allowances, taken)
    _write_drawings(made, shop_file, svg, dxf, pdf, full)
    if as_json:
        print_json(made_json(made))
        return
    out.print(f"{WAYS[way].TITLE}, {made.grade.name}")
    out.print(f"inside  {show_sizes(made.inside, shop.units, 'down')}")
    out.print(f"outside {show_sizes(made.outside, shop.units, 'up')}")
    table = Table("Fence", "Blade", "Do, in this order", "Cuts")
    for setting in made.fence:
        table.add_row(exact_text(setting.fence, shop.units), setting.blade, setting.do, str(setting.cuts))
    out.print(table)
    for note in made.notes:
        out.print(note)


def recut(
    box: Annotated[str, typer.Option(help="Inside of the used box: 18.5x12x21in")],
    inside: Annotated[str, typer.Option(help="Inside that is wanted: 24x6.5x21in")],
    board: Annotated[str | None, typer.Option(help="Code of its board, C say.")] = None,
    folds: Annotated[str, typer.Option(help="tape counts no loss at moved corners, bench counts the shop's.")] = "tape",
    upright: Annotated[bool, typer.Option(help="The height wanted stays the height.")] = False,
    as_json: AsJson = False,
    db: DbFile = None,
) -> None:
    """What a used box becomes when its corners are moved, its height is cut down, or both."""
    shop_file, _ = open_shop(db, None)
    shop = shop_file.to_core()
    taken: Folds = "bench" if one_of(folds, ("tape", "bench"), "folds") == "bench" else "tape"
    old, needed = (read_sizes(text, shop.units, field=name) for text, name in ((box, "box"), (inside, "inside")))
    try:
        caliper, refold = shop.grade(board).caliper, shop.allowances[REFOLD]
        found = recuts(old, caliper, needed, refold, shop.allowances.mark_step, taken, upright)
    except NoAnswer as none:
        if as_json:
            print_json({"possible": False, "why": str(none), "results": []})
        raise
    if as_json:
        print_json(recuts_json(found, shop.units))
        return
    for made in found:
        out.print(
            f"inside  {show_sizes(made.nominal, shop.units, 'down')} by the tape, "
            f"{show_sizes(made.inside, shop.units, 'down')} after the folds"
        )
        out.print(f"outside {show_sizes(made.outside, shop.units, 'up')}")
        for n, step in enumerate(recut_steps(made), 1):
            out.print(f"{n:3}. {step.told(in_words(shop.units))}")


def stack(
    box: Annotated[str, typer.Option(help="Inside of one of the equal boxes: 14x14x12in")],
    goods: Annotated[str, typer.Option(help="What stands in it, gaps and all: 13x13x35in")],
    board: Annotated[str | None, typer.Option(help="Code of its board, C say.")] = None,
    as_json: AsJson = False,
    db: DbFile = None,
) -> None:
    """How many equal boxes, one telescoped into the next, take something long."""
    shop_file, _ = open_shop(db, None)
    shop = shop_file.to_core()
    one, needed = (read_sizes(text, shop.units, field=name) for text, name in ((box, "box"), (goods, "goods")))
    made = stack_up(one, shop.grade(board).caliper, needed, shop.allowances[OVERLAP])
    if as_json:
        print_json(stack_json(made, shop.units))
        return
    least, most = (show_length(length, shop.units, "down").text for length in (made.least, made.most))
    out.print(f"{made.boxes} boxes, from {least} to {most} high inside")
    out.print(f"outside {show_sizes(made.outside, shop.units, 'up')}")
    for n, step in enumerate(stack_steps(made), 1):
        out.print(f"{n:3}. {step.told(in_words(shop.units))}")


def _parted(text: str) -> tuple[str, str]:
    """The name and the length of NAME=LENGTH."""
    name, _, length = text.partition("=")
    return one_of(name.strip(), tuple(ALLOWANCES), "allow"), length


def _allowance(name: str, length: str, units: Units) -> Length:
    one = ALLOWANCES[name]
    return read_length(length, units, zero=one.zero, most=one.most, field=name)


def _write_drawings(
    made: Made, shop: ShopFile, svg_path: Path | None, dxf_path: Path | None, pdf_path: Path | None, full: bool
) -> None:
    if svg_path:
        from fardo.files.svg import svg

        for piece in made.blanks:
            path = svg_path if len(made.blanks) == 1 else svg_path.with_stem(f"{svg_path.stem}-{piece.name}")
            write(path, svg(piece, shop.units).encode())
    if dxf_path:
        from fardo.files.dxf import dxf

        write(dxf_path, dxf(made.blanks, shop.units).encode())
    if pdf_path:
        from fardo.core.make.step import before_cutting
        from fardo.core.plan.cautions import CUTTING
        from fardo.files.full_size import full_size
        from fardo.files.page import Heading
        from fardo.files.pdf import cut_sheet

        inside, outside = show_sizes(made.inside, shop.units, "down"), show_sizes(made.outside, shop.units, "up")
        sizes = f"{made.grade.name}, inside {inside}, outside {outside}"
        heading = Heading(WAYS[made.way].TITLE, (sizes, *made.notes))
        if full:
            write(pdf_path, full_size(heading, made.blanks, shop.units, shop.paper))
        else:
            steps = [step.told(in_words(shop.units)) for step in made.steps]
            before = before_cutting(made.steps)
            sheet = cut_sheet(heading, made.blanks, made.fence, CUTTING, shop.units, shop.paper, steps, before=before)
            write(pdf_path, sheet)
