"""The command `fardo`: plan, blank and price from the shell; serve, demo, backup, restore and check a shop.

Exit codes: 0 done, 1 no answer possible, 2 bad input.
"""

from __future__ import annotations

import sys
from typing import Annotated

import typer

from fardo import __version__
from fardo.command import boxes, planning, shop
from fardo.command.shared import out
from fardo.core.refusal import BadInput, NoAnswer
from fardo.store.faults import CannotWrite, StoreError

app = typer.Typer(add_completion=False, no_args_is_help=True, pretty_exceptions_enable=False, help=__doc__)
for command in (
    planning.plan, planning.price, boxes.blank, boxes.recut, boxes.stack, shop.serve, shop.passphrase, shop.demo,
    shop.standin, shop.export, shop.backup, shop.restore, shop.check,
):  # fmt: skip
    app.command()(command)
app.command("import")(shop.import_)


def _tell_version(wanted: bool) -> None:
    if wanted:
        out.print(f"fardo {__version__}")
        raise typer.Exit


@app.callback()
def _options(
    version: Annotated[
        bool, typer.Option("--version", callback=_tell_version, is_eager=True, help="Of Fardo.")
    ] = False,
) -> None:
    """What may stand before a command."""


def main(arguments: list[str] | None = None) -> None:
    """Runs the command (on the process's own arguments unless given), turning refusals into a sentence and a code."""
    try:
        app(arguments)
    except BadInput as error:
        print(f"fardo: {error.sentence}", file=sys.stderr)
        sys.exit(2)
    except NoAnswer as error:
        print(f"fardo: {error}", file=sys.stderr)
        sys.exit(1)
    except (StoreError, CannotWrite) as error:
        print(f"fardo: {error}", file=sys.stderr)
        sys.exit(2)


if __name__ == "__main__":
    main()
