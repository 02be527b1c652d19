"""The made-up shop: Gannet Row Workshop in the made-up harbour town of Pellmouth, five made-up carriers, other ways."""

from __future__ import annotations

from datetime import date, timedelta
from importlib.resources import files
from pathlib import Path

from fardo.files.address import AddressEntry
from fardo.files.channel import ChannelEntry, SaleLabelEntry
from fardo.files.house_rules import HouseRuleEntry
from fardo.files.job import read_job
from fardo.files.materials import MaterialEntry
from fardo.files.recipient import RecipientEntry
from fardo.files.shop import WireEntry, starting_shop
from fardo.files.stock import BoxEntry, PouchEntry
from fardo.files.tariff import read_tariffs
from fardo.store.database import Database
from fardo.store.jobs import Jobs
from fardo.store.recipients import Recipients
from fardo.store.settings import Settings

TARIFFS = Path(str(files("fardo.demo").joinpath("tariffs")))
CARRIER = "Oddbarrow"  # the one that can be live quotes too
_JOBS = Path(str(files("fardo.demo").joinpath("jobs")))
# Given out at the made-up carrier's counter.
_COUNTER_ENVELOPE = PouchEntry(
    name="counter envelope", kind="padded", width="9 1/2 in", length="12 1/2 in", wall="3/16 in", weight="38 g",
    count=50, carrier="Wendlefirth Post",
)  # fmt: skip
_MARKET = ChannelEntry(
    name="Makers' market", programmes=["marketplace"],
    label=SaleLabelEntry(carrier="Wendlefirth Post", most_weight="4 lb"),
    note="plain box, tissue, the card on top", fees="8 % of the sale",
)  # fmt: skip
_OWN_SHOP = ChannelEntry(name="Workshop door", note="as it is asked for at the counter")
# A free flat carton of the carrier that the workshop is handed rolls of labels by.
_FLAT_CARTON = BoxEntry(
    name="post free flat carton", inside="12 1/4 x 3 x 15 3/8 in", board="B", count=12, carrier="Wendlefirth Post"
)
# Made-up people, as everybody here.
_RECIPIENTS = {
    "Treadle wheel, taken apart": RecipientEntry(
        address=AddressEntry(name="Isolde Marran", lines=["The Old Sail Loft", "14 Ropewalk Lane"], town="Ostwick",
                             region="PM", postcode="73120"),
        order="GR-1042", note="The wheel goes on first; the sheet tells the rest. Happy spinning.",
    ),
    "Concertina for Ostwick": RecipientEntry(
        address=AddressEntry(name="Jorin Feldt", lines=["3 Mill Row"], town="Ostwick", region="PM", postcode="73120"),
        order="GR-1045",
    ),
}  # fmt: skip
_RULES = [
    HouseRuleEntry(name="Dear instruments", value_from="2000.00", ways=["boxed-twice"], cover=True, signature=True),
    HouseRuleEntry(name="Rough weeks", first_day="11-15", last_day="01-05", more_gap="1/2 in", tape_times=1.5),
]  # fmt: skip


_LEFT = {"bubble-large": 40.0, "bubble-small": 25.0, "tissue": 60.0}  # square metres on the roll


def _counted(material: MaterialEntry) -> MaterialEntry:
    return material.model_copy(update={"left": _LEFT.get(material.code)})


def open_demo(path: Path, today: date, carrier_at: str = "", printer_at: str = "") -> None:
    """Fills a new database with the made-up shop; one that has a shop already is left as it is.

    Args:
        today: the days of the jobs are counted from it.
        carrier_at: where the simulated carrier answers, if it does.
        printer_at: where the simulated label printer does.
    """
    database = Database(path)
    settings, jobs, recipients = Settings(database), Jobs(database), Recipients(database)
    revision, _ = settings.shop()
    if revision == 0:
        for tariff in read_tariffs(TARIFFS):
            settings.keep_tariff(tariff)
        # Last added is first on the bench, and the first to leave.
        for n, file in reversed(list(enumerate(sorted(_JOBS.glob("*.job.json"))))):
            day = today + timedelta(days=(n * 3 + 1) // 2)
            stored = jobs.add(read_job(file.read_bytes()).model_copy(update={"day": day}))
            if (recipient := _RECIPIENTS.get(stored.job.title)) is not None:
                recipients.change(stored.id, 0, recipient)
        # The shop comes last: a demo that was stopped half way is begun again, not taken for whole.
        shop = starting_shop()
        mailers = [*shop.mailers, _COUNTER_ENVELOPE]
        shop = shop.model_copy(
            update={
                "name": "Gannet Row Workshop", "town": "Pellmouth", "postcode": "10440", "address": "2 Gannet Row",
                "return_address": "Gannet Row Workshop\nBox 44\nPellmouth 10440", "mailers": mailers,
                "channels": [_MARKET, _OWN_SHOP], "rules": _RULES, "boxes": [*shop.boxes, _FLAT_CARTON],
                "materials": [_counted(one) for one in shop.materials],
                "fill": shop.fill.model_copy(update={"left": 400.0}),
                "tape": shop.tape.model_copy(update={"left": 66.0}),
            }
        )  # fmt: skip
        settings.change_shop(0, shop)
    _connect(settings, carrier_at, printer_at)
    database.close()


def _connect(settings: Settings, carrier_at: str, printer_at: str) -> None:
    """The simulated carrier and printer are asked where they answer today; one that was taken off stays off."""
    revision, shop = settings.shop()
    wires, printer, new = shop.wires, shop.printer, revision == 1
    ours = [wire for wire in wires if wire.carrier == CARRIER]
    if carrier_at and (ours or new):
        wires = [*(wire for wire in wires if wire not in ours), WireEntry(carrier=CARRIER, address=carrier_at)]
    if printer_at and (printer or new):
        printer = printer_at
    if (wires, printer) != (shop.wires, shop.printer):
        settings.change_shop(revision, shop.model_copy(update={"wires": wires, "printer": printer}))
