"""Charges, one module each. A new kind of charge is a new module here and an entry in `files.charges`.

Each is a small frozen class with one method, `charge`, that is told the parcel, what is billed and the lines before
it, and returns its own line, or None where it does not apply.
"""

from fardo.core.tariff.charges.charge import Charge, ChargeLine, Consignment
from fardo.core.tariff.charges.cover import Cover
from fardo.core.tariff.charges.distance import Distance
from fardo.core.tariff.charges.freight import Freight
from fardo.core.tariff.charges.fuel import Fuel
from fardo.core.tariff.charges.grid import Increment, WeightGrid
from fardo.core.tariff.charges.packing import PackingCharge
from fardo.core.tariff.charges.residential import Residential
from fardo.core.tariff.charges.surcharge import Conditional, PerConsignment, Surcharge, bare
from fardo.core.tariff.charges.tiers import ContainerPrice, SoftPackTiers, VolumeTiers

__all__ = [
    "Charge",
    "ChargeLine",
    "Conditional",
    "Consignment",
    "ContainerPrice",
    "Cover",
    "Distance",
    "Freight",
    "Fuel",
    "Increment",
    "PackingCharge",
    "PerConsignment",
    "Residential",
    "SoftPackTiers",
    "Surcharge",
    "VolumeTiers",
    "WeightGrid",
    "bare",
]
