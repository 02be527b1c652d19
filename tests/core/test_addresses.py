"""Addresses pasted as one text and parted into fields; all made up, in forms that are common practice."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fardo.files.address import AddressEntry, part_address

ROPEWALK = "Isolde Marran\n14 Ropewalk Lane\nOstwick, PM 73120"


@pytest.mark.parametrize(
    ("text", "name", "lines", "town", "region", "postcode", "country"),
    [
        (ROPEWALK, "Isolde Marran", ["14 Ropewalk Lane"], "Ostwick", "PM", "73120", ""),
        ("Isolde Marran, 14 Ropewalk Lane, Ostwick, PM 73120", "Isolde Marran", ["14 Ropewalk Lane"], "Ostwick", "PM",
         "73120", ""),
        ("Isolde Marran\nThe Loft\n14 Ropewalk Lane\nOstwick PM 73120-4410\nPellmark", "Isolde Marran",
         ["The Loft", "14 Ropewalk Lane"], "Ostwick", "PM", "73120-4410", "Pellmark"),
        ("Jorin Feld\nSeilergasse 9\n40213 Neuenstett", "Jorin Feld", ["Seilergasse 9"], "Neuenstett", "", "40213", ""),
        ("Jorin Feld\nSeilergasse 9\nD-40213 Neuenstett\nGermany", "Jorin Feld", ["Seilergasse 9"], "Neuenstett", "",
         "40213", "Germany"),
        ("Wick Harl\n3 Mill Row\nNether Ebb\nQX4 7TR", "Wick Harl", ["3 Mill Row"], "Nether Ebb", "", "QX4 7TR", ""),
        ("Wick Harl\n3 Mill Row\nNether Ebb QX4 7TR\nUnited Kingdom", "Wick Harl", ["3 Mill Row"], "Nether Ebb", "",
         "QX4 7TR", "United Kingdom"),
        ("Ada Tull\n77 Quay St\nPort Ennis K1P 4B2", "Ada Tull", ["77 Quay St"], "Port Ennis", "", "K1P 4B2", ""),
        ("Bo Lind\nVallgatan 2\n114 55 Sundvik\nSweden", "Bo Lind", ["Vallgatan 2"], "Sundvik", "", "114 55", "Sweden"),
        ("Ida Ros\nBogveien 4\n0150 Havn", "Ida Ros", ["Bogveien 4"], "Havn", "", "0150", ""),
        ("Somebody\nSomewhere", "Somebody", ["Somewhere"], "", "", "", ""),
        ("", "", [], "", "", "", ""),
    ],
)  # fmt: skip
def test_an_address_is_parted_by_what_its_lines_look_like(
    text: str, name: str, lines: list[str], town: str, region: str, postcode: str, country: str
) -> None:
    found = part_address(text)
    assert (found.name, found.lines, found.town, found.region, found.postcode, found.country) == (
        name, lines, town, region, postcode, country,
    )  # fmt: skip


def test_phone_and_mail_are_found_wherever_they_stand() -> None:
    found = part_address(f"{ROPEWALK}\n+1 (555) 010-4477\nisolde@ostwick.example")
    assert (found.phone, found.mail) == ("+1 (555) 010-4477", "isolde@ostwick.example")
    assert found.postcode == "73120"
    assert part_address("Isolde Marran, tel. 555 010 4477\n14 Ropewalk Lane\n73120 Ostwick").phone == ""
    assert part_address("Isolde\nTel: 5550104477\n14 Ropewalk Lane\nOstwick 73120").phone == "5550104477"


def test_a_house_number_is_no_postcode_and_a_name_is_never_one() -> None:
    assert part_address("10440 Pellmouth\n2 Gannet Row").name == "10440 Pellmouth"
    found = part_address("Isolde Marran\n14400 Ropewalk Lane\nOstwick, PM 73120")
    assert (found.lines, found.postcode) == (["14400 Ropewalk Lane"], "73120")


def test_an_address_is_set_out_as_it_was_written() -> None:
    assert part_address(ROPEWALK).set_out() == ROPEWALK.split("\n")
    assert part_address("Bo Lind\nVallgatan 2\n114 55 Sundvik\nSweden").set_out() == [
        "Bo Lind", "Vallgatan 2", "114 55 Sundvik", "SWEDEN",
    ]  # fmt: skip
    assert AddressEntry().set_out() == []
    assert AddressEntry().is_empty


def test_a_long_address_loses_no_line() -> None:
    found = part_address("A\nb\nc\nd\ne\nf\nOstwick, PM 73120")
    assert found.lines == ["b", "c", "d", "e, f"]


@given(st.text(max_size=300))
def test_any_text_is_parted_into_what_can_be_kept(text: str) -> None:
    found = part_address(text)
    assert AddressEntry.model_validate(found.model_dump()) == found
