"""Files read back: sizes, operations, and an asymmetric figure that a mirrored export shows."""

from __future__ import annotations

import io
import math
import os
import subprocess
import sys
from typing import Any

import ezdxf
import pikepdf
import pypdfium2
import pytest
from ezdxf import path as dxf_path
from lxml import etree
from PIL import Image

from stileblade.design.evaluation import evaluate
from stileblade.errors import StilebladeError
from stileblade.formats.format import formats
from stileblade.formats.options import FileOptions
from stileblade.formats.pages import FOOT, MARGIN
from stileblade.formats.plan import plan_of
from stileblade.geometry.paths.pathdata import region_from_path
from tests.conftest import design_of

SVG = "{http://www.w3.org/2000/svg}"
# an L with a round and a curved corner: no two of its corners are alike
PATH = "M0 0H80A20 20 0 0 1 100 20V30H30C30 60 20 60 0 60Z"
MARK = {"kind": "window", "id": "w", "at": "head-left", "by": "head-left", "dx": 6, "dy": 8,
        "outline": {"kind": "circle", "diameter": 10}}  # fmt: skip


def asymmetric(*more: dict[str, Any]) -> Any:
    data = design_of(
        {"kind": "figure", "id": "a", "outline": {"kind": "drawn", "ref": "l"}}, MARK, *more
    ).model_dump(mode="json")
    data["artworks"] = {"l": {"name": "L", "layers": [{"path": PATH}]}}
    return data


def written(kind: str, data: Any, **options: Any) -> bytes:
    from stileblade.design.document import load_design

    evaluation = evaluate(load_design(data))
    plan = plan_of(evaluation, evaluation.pieces[0])
    return formats()[kind].write(plan, FileOptions(**options))


OWN = {"page": "own", "words": False}


def test_svg_is_true_to_size_and_grouped_by_operation() -> None:
    mirror = {"kind": "mirror", "id": "m", "towards": "right", "lap": 20}
    crease = {"kind": "crease", "id": "c", "made": "score", "setback": 2}
    root = etree.fromstring(written("svg", asymmetric(mirror, crease)))
    assert (root.get("width"), root.get("height")) == ("180.0000mm", "60.0000mm")
    assert root.get("viewBox") == "0 0 180.0000 60.0000"
    assert [g.get("id") for g in root.iter(f"{SVG}g")] == [
        "score", "score-mountain", "perforate", "prick", "draw", "cut", "cut-inner", "cut-outer",
    ]  # fmt: skip
    assert "Base" in (root.findtext(f"{SVG}title") or "")
    assert "180.000 x 60.000 mm" in (root.findtext(f"{SVG}desc") or "")
    (score,) = root.findall(f".//{SVG}g[@id='score']//{SVG}path")
    # at x = 90 the round corner begins 20 - sqrt(300) = 2.6795 down; 2 are left at each end
    assert score.get("d") == "M90 4.6795L90 28"


def test_svg_reads_back_as_the_same_region() -> None:
    evaluation_data = asymmetric()
    root = etree.fromstring(written("svg", evaluation_data))
    paths = [p.get("d") or "" for p in root.iter(f"{SVG}path")]
    region = region_from_path(" ".join(paths))
    assert region.bounds.as_list() == pytest.approx([0, 0, 100, 60], abs=1e-3)
    assert region.area == pytest.approx(region_from_path(PATH).area - 25 * math.pi, abs=5e-3)
    assert region.openings[0].bounds.centre == pytest.approx((11, 13), abs=1e-3)
    assert "A" in paths[-1]
    assert "C" in paths[-1]


def test_dxf_is_in_mm_upright_and_has_a_layer_for_each_operation() -> None:
    crease = {"kind": "crease", "id": "c", "made": "perforate"}
    mirror = {"kind": "mirror", "id": "m", "towards": "right", "lap": 20}
    document = ezdxf.read(io.StringIO(written("dxf", asymmetric(mirror, crease)).decode()))
    assert document.dxfversion == "AC1024"
    assert document.header["$INSUNITS"] == 4
    assert not document.audit().errors
    layers = {layer.dxf.name for layer in document.layers}
    assert {"SCORE", "PERFORATE", "DRAW", "CUT_INNER", "CUT_OUTER"} <= layers
    assert dict(document.header.custom_vars.properties)["Title"].endswith("Base")
    assert {e.dxf.layer for e in document.modelspace()} == {"PERFORATE", "CUT_INNER", "CUT_OUTER"}


@pytest.mark.parametrize(
    ("curves", "kinds"), [("arcs", ["LWPOLYLINE"]), ("splines", ["LWPOLYLINE", "SPLINE"])]
)
def test_dxf_reads_back_with_y_upwards(curves: str, kinds: list[str]) -> None:
    """The hole at 11 from the left and 13 from the head of 60 lies at y = 47."""
    document = ezdxf.read(io.StringIO(written("dxf", asymmetric(), curves=curves).decode()))
    outer = [e for e in document.modelspace() if e.dxf.layer == "CUT_OUTER"]
    assert sorted({e.dxftype() for e in outer}) == kinds
    if curves == "arcs":
        assert [e.closed for e in outer] == [True]
    points = [p for e in outer for p in dxf_path.make_path(e).flattening(0.001)]
    assert max(p.x for p in points) == pytest.approx(100, abs=1e-6)
    assert max(p.y for p in points) == pytest.approx(60, abs=1e-6)
    (inner,) = (e for e in document.modelspace() if e.dxf.layer == "CUT_INNER")
    hole = list(dxf_path.make_path(inner).flattening(0.0005))
    assert sum(p.x for p in hole[:-1]) / (len(hole) - 1) == pytest.approx(11, abs=0.01)
    assert min(p.y for p in hole) == pytest.approx(42, abs=1e-3)
    assert max(p.y for p in hole) == pytest.approx(52, abs=1e-3)
    # the corner at 100, 20 from the head is round: no point outside its circle
    assert not any(p.x > 96 and p.y > 56 for p in points)


def test_dxf_of_an_ellipse_is_one_closed_line_where_it_was() -> None:
    data = design_of(
        {"kind": "figure", "id": "a", "outline": {"kind": "ellipse", "width": 80, "height": 30}},
        {"kind": "turn", "id": "t", "angle": 25},
        {"kind": "slice", "id": "s", "keep": "above", "edge": "far", "distance": 20},
    ).model_dump(mode="json")
    document = ezdxf.read(io.StringIO(written("dxf", data).decode()))
    kinds = sorted(e.dxftype() for e in document.modelspace())
    assert kinds == ["LWPOLYLINE"]
    region = evaluate(design_of(*data["pieces"][0]["steps"])).pieces[0].work.paper  # type: ignore[union-attr]
    points = [p for e in document.modelspace() for p in dxf_path.make_path(e).flattening(0.001)]
    box = region.bounds
    assert max(p.x for p in points) == pytest.approx(box.width, abs=0.01)
    assert max(p.y for p in points) == pytest.approx(box.height, abs=0.01)
    assert min(p.y for p in points) == pytest.approx(0, abs=0.01)


def test_pdf_is_at_one_to_one_without_unembedded_fonts() -> None:
    content = written("pdf", asymmetric(), **OWN)
    with pikepdf.open(io.BytesIO(content)) as document:
        page = document.pages[0]
        assert document.Root.ViewerPreferences.PrintScaling == "/None"
        assert "/Font" not in page.Resources
        assert str(document.docinfo["/Subject"]).startswith("Card piece, 100.000 x 60.000 mm")
        width, height = (float(v) / 72 * 25.4 for v in page.MediaBox[2:])
    assert (width, height) == pytest.approx((100 + 2 * MARGIN, 60 + MARGIN + FOOT), abs=1e-2)


def test_pdf_shows_the_piece_upright_in_its_true_place() -> None:
    """At 254 dpi a pixel is 0.1 mm: ink on the left edge and at the hole's left, none where the
    L has no paper."""
    page = pypdfium2.PdfDocument(written("pdf", asymmetric(), **OWN))[0]
    picture = page.render(scale=254 / 72).to_pil().convert("L")

    def dark(x: float, y: float) -> bool:
        """Ink within half a mm of a place of the piece."""
        px, py = (MARGIN + x) * 10, (MARGIN + y) * 10
        box = (int(px - 5), int(py - 5), int(px + 5), int(py + 5))
        return min(picture.crop(box).tobytes()) < 160

    assert dark(0, 50)
    assert dark(6, 13)
    assert dark(60, 30)
    assert not dark(60, 50)
    assert not dark(99, 1)


def test_png_says_what_it_is() -> None:
    image = Image.open(io.BytesIO(written("png", asymmetric())))
    assert image.info["Title"].endswith("Base")
    assert image.info["dpi"] == pytest.approx((200, 200), abs=0.1)
    assert image.width == pytest.approx((100 + 2 * MARGIN) / 25.4 * 200, abs=1.5)


@pytest.mark.parametrize("kind", formats().names())
def test_the_same_piece_gives_the_same_bytes(kind: str) -> None:
    """Written by another process, whose sets and dates are others."""
    script = (
        "from tests.formats.test_formats import asymmetric, written; import sys;"
        f"sys.stdout.buffer.write(written({kind!r}, asymmetric()))"
    )
    ours = written(kind, asymmetric())
    for seed in ("1", "2"):
        other = subprocess.run(
            [sys.executable, "-c", script],
            capture_output=True,
            check=True,
            env={**os.environ, "PYTHONHASHSEED": seed},
        ).stdout
        assert other == ours


@pytest.mark.parametrize("kind", ["svg", "dxf", "pdf", "png"])
def test_the_same_design_gives_the_same_bytes_or_says_nothing_of_time(kind: str) -> None:
    if kind == "dxf":
        first, second = (written(kind, asymmetric()).decode() for _ in range(2))
        entities = [t.partition("ENTITIES")[2].partition("ENDSEC")[0] for t in (first, second)]
        assert entities[0] == entities[1]
    else:
        assert written(kind, asymmetric()) == written(kind, asymmetric())


def test_nothing_to_export_says_so() -> None:
    evaluation = evaluate(design_of())
    with pytest.raises(StilebladeError, match="has no paper"):
        plan_of(evaluation, evaluation.pieces[0])
