"""What a shop begins with, and what it says it has at hand when it is set up step by step."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from fardo.core.quantity import Units
from fardo.core.refusal import BadInput
from fardo.files.metric_start import metric_shop
from fardo.files.shop import ShopFile, starting_shop
from fardo.files.stock_lines import LARGEST_LIST, read_stock_lines
from fardo.files.typed import Strict


class AtHand(Strict):
    """What is said on the screens for board, boxes and mailers. What is left out stays as it is."""

    boards: list[str] | None = Field(None, max_length=40, description="codes of the boards that are there")
    cut_with: Literal["knife", "saw"] | None = Field(None, description="a knife takes nothing of the board, a saw does")
    lines: str = Field("", max_length=LARGEST_LIST, description="boxes and mailers, one a line")
    usual_sizes: bool = Field(False, description="the usual boxes and mailers too, with counts to correct")


def new_shop(units: Units) -> ShopFile:
    """The starting values in a system of measures, and no box or mailer: what is at hand only the shop can say."""
    return _starting(units).model_copy(update={"boxes": [], "mailers": []})


def with_at_hand(shop: ShopFile, said: AtHand) -> ShopFile:
    """The shop with what it says it has.

    Args:
        shop: as it was; it is not changed.

    Raises: BadInput naming the field, and of boxes and mailers the line.
    """
    if said.boards is not None:
        shop = _with_boards(shop, said.boards)
    if said.cut_with == "knife":
        shop = shop.model_copy(update={"kerf": "0 mm"})
    elif said.cut_with == "saw" and not shop.to_core().kerf:
        shop = shop.model_copy(update={"kerf": _starting(shop.units).kerf})
    read = read_stock_lines(said.lines, shop.units, shop.default_board)
    boxes, mailers = [*shop.boxes, *read.boxes], [*shop.mailers, *read.mailers]
    if said.usual_sizes:
        usual, names = _starting(shop.units), {box.name for box in boxes} | {one.name for one in mailers}
        codes = {board.code for board in shop.boards}
        for box in usual.boxes:
            if not box.used and box.name not in names:
                board = box.board if box.board in codes else shop.default_board
                boxes.append(box.model_copy(update={"board": board}))
        mailers += [one for one in usual.mailers if one.name not in names]
    return shop.model_copy(update={"boxes": boxes, "mailers": mailers})


def _starting(units: Units) -> ShopFile:
    return starting_shop() if units == "in" else metric_shop()


def _with_boards(shop: ShopFile, codes: list[str]) -> ShopFile:
    """Those boards alone; what is cut from one that is not there is cut from the usual one."""
    kept = [board for board in shop.boards if board.code in codes]
    if not kept:
        raise BadInput("no board", read="none", allowed="one of the boards at least", field="boards")
    there = {board.code for board in kept}
    of_boxes = sorted({box.board for box in shop.boxes} - there)
    if of_boxes:
        why = f"boxes in stock are made of board {', '.join(of_boxes)}"
        raise BadInput(why, read="taken off", allowed="every board that a box is made of", field="boards")
    usual = shop.default_board if shop.default_board in there else kept[0].code
    materials = [
        one.model_copy(update={"board": usual}) if one.board is not None and one.board not in there else one
        for one in shop.materials
    ]
    return shop.model_copy(update={"boards": kept, "default_board": usual, "materials": materials})
