"""Lengths, masses and money: exact, read from what people type, shown as people read."""

from fardo.core.quantity.decimals import read_decimal
from fardo.core.quantity.length import INCH, MM, SIXTEENTH, SIXTY_FOURTH, ZERO, Length, Rounding
from fardo.core.quantity.mass import OUNCE, POUND, Mass
from fardo.core.quantity.money import Money
from fardo.core.quantity.read import (
    check_length,
    check_mass,
    read_distance,
    read_flat,
    read_length,
    read_mass,
    read_sizes,
)
from fardo.core.quantity.show import (
    FINEST,
    TAPE,
    Shown,
    Units,
    both_units,
    on_the_tape,
    show_addend,
    show_cross,
    show_length,
    show_mass,
    show_sizes,
    show_volume,
)
from fardo.core.quantity.space import cubic_cm, cubic_inches, volume_nm3

__all__ = [
    "FINEST",
    "INCH",
    "MM",
    "OUNCE",
    "POUND",
    "SIXTEENTH",
    "SIXTY_FOURTH",
    "TAPE",
    "ZERO",
    "Length",
    "Mass",
    "Money",
    "Rounding",
    "Shown",
    "Units",
    "both_units",
    "check_length",
    "check_mass",
    "cubic_cm",
    "cubic_inches",
    "on_the_tape",
    "read_decimal",
    "read_distance",
    "read_flat",
    "read_length",
    "read_mass",
    "read_sizes",
    "show_addend",
    "show_cross",
    "show_length",
    "show_mass",
    "show_sizes",
    "show_volume",
    "volume_nm3",
]  # fmt: skip
