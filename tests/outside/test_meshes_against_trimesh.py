"""Mesh files written by trimesh, a general-purpose mesh library, and what it says of them against what is said here."""

from __future__ import annotations

import numpy as np
import pytest
import trimesh
from hypothesis import given
from hypothesis import strategies as st

from fardo.core.goods.shape import Mesh, Shape, scanned
from fardo.core.goods.shape.scanned import MOST_TRIANGLES
from fardo.core.quantity import INCH, MM, Length
from fardo.core.refusal import BadInput
from fardo.files.mesh import read_mesh


def solids() -> list[trimesh.Trimesh]:
    return [
        trimesh.creation.box((3, 2, 1)),
        trimesh.creation.cylinder(1, 4, sections=17),
        trimesh.creation.annulus(1, 2, 0.5, sections=20),
        trimesh.creation.cone(1, 3, sections=15),
        trimesh.creation.icosphere(2, 1.5),
        trimesh.creation.torus(2, 0.5, 12, 8),
        trimesh.creation.capsule(2, 0.7, count=(8, 8)),
    ]


def written(mesh: trimesh.Trimesh, kind: str) -> bytes:
    content = mesh.export(file_type=kind)
    return content.encode() if isinstance(content, str) else content


@pytest.mark.parametrize("kind", ["stl", "stl_ascii", "obj", "ply", "glb"])
@pytest.mark.parametrize("n", range(7))
def test_every_solid_comes_in_from_every_kind_of_file(n: int, kind: str) -> None:
    mesh = solids()[n]
    read = read_mesh(f"piece.{kind.partition('_')[0]}", written(mesh, kind))
    shape = scanned("piece", read, INCH)
    # STL keeps single precision.
    assert shape.volume_nm3 / 25_400_000**3 == pytest.approx(mesh.volume, rel=1e-5)
    assert shape.area_nm2 / 25_400_000**2 == pytest.approx(mesh.area, rel=1e-5)
    assert sorted(float(side.inches) for side in shape.sizes) == pytest.approx(sorted(mesh.extents), rel=1e-5)


@given(st.integers(0, 6), st.integers(0, 500), st.integers(1, 4))
def test_open_here_is_what_the_library_calls_not_watertight(n: int, seed: int, holes: int) -> None:
    whole = solids()[n]
    drop = np.random.default_rng(seed).choice(len(whole.faces), holes, replace=False)
    mesh = trimesh.Trimesh(whole.vertices, np.delete(whole.faces, drop, axis=0), process=False)
    assert not mesh.is_watertight
    with pytest.raises(BadInput, match="not closed"):
        scanned("piece", Mesh(mesh.vertices, mesh.faces), MM)


@given(st.integers(0, 6), st.tuples(*[st.floats(-500, 500)] * 3), st.floats(0.01, 30))
def test_where_a_mesh_lies_in_its_file_and_how_large_a_step_is_do_not_matter(n: int, moved, factor: float) -> None:
    mesh = solids()[n]
    here = scanned("piece", Mesh(mesh.vertices, mesh.faces), Length.of_mm(factor))
    there = scanned("piece", Mesh((mesh.vertices + moved) * factor, mesh.faces), MM)
    assert [a.mm for a in there.sizes] == pytest.approx([b.mm for b in here.sizes], abs=1e-5)
    assert there.closed.vertices.min(axis=0) == pytest.approx(np.zeros(3), abs=1e-9)


@pytest.mark.parametrize("n", range(7))
def test_a_mesh_turned_inside_out_is_refused(n: int) -> None:
    mesh = solids()[n]
    with pytest.raises(BadInput, match="inwards"):
        scanned("piece", Mesh(mesh.vertices, mesh.faces[:, ::-1]), MM)


def test_too_many_triangles_are_refused_before_anything_is_worked_out() -> None:
    faces = np.zeros((MOST_TRIANGLES + 1, 3), dtype=np.int64)
    with pytest.raises(BadInput, match="too many triangles"):
        scanned("piece", Mesh(np.zeros((3, 3)), faces), MM)


def test_what_is_not_a_number_in_a_mesh_is_refused() -> None:
    mesh = solids()[0]
    vertices = mesh.vertices.copy()
    vertices[0, 0] = np.nan
    with pytest.raises(BadInput, match="no surface"):
        scanned("piece", Mesh(vertices, mesh.faces), MM)


@given(st.binary(max_size=600), st.sampled_from(["a.stl", "a.obj", "a.ply", "a.glb"]))
def test_any_bytes_under_any_name_are_read_or_refused_in_words(content: bytes, name: str) -> None:
    refusal: BadInput | None = None
    try:
        shape: Shape | None = scanned(name, read_mesh(name, content), MM)
    except BadInput as told:
        shape, refusal = None, told
    assert refusal.sentence if refusal else shape and shape.volume_nm3 >= 0


@pytest.mark.parametrize("kind", ["stl", "obj", "ply", "glb"])
@pytest.mark.parametrize("share", [0.2, 0.5, 0.9])
def test_a_file_cut_off_is_refused_in_words(kind: str, share: float) -> None:
    content = written(solids()[4], kind)
    with pytest.raises(BadInput):
        scanned("piece", read_mesh(f"piece.{kind}", content[: int(len(content) * share)]), MM)
