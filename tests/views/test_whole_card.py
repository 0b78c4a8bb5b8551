"""Pictures and figures of the whole card: one model for the browser and for files."""

from __future__ import annotations

import io
import json
import subprocess
import sys
from pathlib import Path

import numpy as np
import pytest
from PIL import Image

from stileblade.errors import StilebladeError
from stileblade.views.adding import offers_of
from stileblade.views.assembled import assembled_of
from stileblade.views.bench import view
from stileblade.views.picture import Pose, png_of, whole_picture
from stileblade.views.report import report
from tests.steps.kinds.test_layers import SQUARES
from tests.whole import BLANK, CIRCLES, WINDOW, layer, whole

RED, GREEN = "#c01010", "#10a010"
PAPERS = [{"id": "paper", "outside": "#8899aa", "inside": "#eeeeee"},
          {"id": "red", "outside": RED, "inside": GREEN}]  # fmt: skip
CARD = (layer("m", {"kind": "mat", "margin": 10}, paper="red"),
        layer("in", {"kind": "mat", "margin": 20}, paper="red", side="inside"),
        layer("i", {"kind": "insert", "margin": 40}, side="inside", order=1))  # fmt: skip


def test_the_open_card_is_seen_from_both_sides() -> None:
    seen = assembled_of(whole([BLANK], *CARD, papers=PAPERS))
    assert seen is not None
    assert [s.piece for s in seen.outside.sheets] == ["i", "in", "base", "m"]
    assert [s.piece for s in seen.inside.sheets] == ["m", "base", "in", "i"]
    outside = {s.piece: s for s in seen.outside.sheets}
    inside = {s.piece: s for s in seen.inside.sheets}
    assert (outside["m"].fill, inside["m"].fill) == (RED, GREEN)
    # inside, the front is on the left, and what lies on it shows its outside
    assert (inside["in"].fill, inside["base"].fill) == (RED, "#eeeeee")
    assert inside["in"].box == pytest.approx((20, 20, 85, 128))
    assert outside["m"].box == pytest.approx((115, 10, 200, 138))


def test_what_is_hidden_is_in_no_picture_but_in_the_card() -> None:
    card = whole([BLANK], layer("m", {"kind": "mat"}, hidden=True))
    seen = assembled_of(card)
    assert seen is not None
    assert [s.piece for s in seen.outside.sheets] == ["base"]
    assert len(whole_picture(card, Pose.HALF_OPEN).shapes) == 2
    assert report(card)["card"]["bulk_mm"] == pytest.approx(0.9)


@pytest.mark.parametrize("inside", [False, True])
def test_dragged_in_the_picture_a_layer_lies_where_it_was_dropped(inside: bool) -> None:
    """By its values as the browser sets them, on the base and on a turned layer."""
    disc = {"kind": "overlay", "outline": {"kind": "circle", "diameter": 10}}
    plate = {
        "kind": "overlay",
        "outline": {"kind": "rectangle", "width": 60, "height": 60},
        "turn": 30,
    }
    side = "inside" if inside else "outside"
    for host in ("base", "plate"):

        def placed(host: str = host, **values: float) -> tuple[tuple[float, ...], object]:
            card = whole([BLANK], layer("plate", plate, side=side),
                         layer("d", {**disc, **values}, host=host, side=side if host == "base" else "outside"))  # fmt: skip
            seen = assembled_of(card)
            assert seen is not None
            sheet = next(
                s for s in (seen.inside if inside else seen.outside).sheets if s.piece == "d"
            )
            return sheet.box, sheet.moves

        before, moves = placed()
        ways = np.array([moves.x, moves.y]).T  # type: ignore[attr-defined]
        dx, dy = np.linalg.solve(ways, [7.0, -4.0])
        after, _ = placed(dx=float(dx), dy=float(dy))
        assert np.subtract(after, before) == pytest.approx([7, -4, 7, -4])


def test_a_still_picture_has_the_papers_colours() -> None:
    card = whole([BLANK], layer("m", {"kind": "mat", "margin": 10}, paper="red"), papers=PAPERS)
    image = Image.open(io.BytesIO(png_of(whole_picture(card, Pose.ASSEMBLED), 420))).convert("RGB")
    colours = {c: n for n, c in image.getcolors(image.width * image.height) or []}
    red = colours[(0xC0, 0x10, 0x10)] / (image.width * image.height)
    assert red == pytest.approx(85 * 128 / (210 * 148) / (1.06 * (148 + 12.6) / 148), rel=0.03)


@pytest.mark.parametrize("pose", list(Pose))
def test_every_pose_shows_all_layers(pose: Pose) -> None:
    picture = whole_picture(whole([BLANK, WINDOW], *CARD, papers=PAPERS), pose)
    shapes = [s for s in picture.shapes if s.what == "paper"]
    faces = 1 if pose is Pose.ASSEMBLED else 2
    inserts = 1 if pose is Pose.ASSEMBLED else 2
    assert len(shapes) == faces + 2 + inserts


def test_taken_apart_layers_stand_off() -> None:
    card = whole([BLANK], *CARD, papers=PAPERS)
    close, apart = (whole_picture(card, pose) for pose in (Pose.HALF_OPEN, Pose.APART))
    same = {s.path for s in close.shapes} & {s.path for s in apart.shapes}
    # two faces, and the score that the insert is folded at stands off with it
    assert (len(same), len(close.shapes)) == (2, 7)


def test_nothing_to_be_seen_is_said() -> None:
    with pytest.raises(StilebladeError, match="no paper"):
        whole_picture(whole([]), Pose.CLOSED)


def test_the_report_says_how_each_piece_lies() -> None:
    made = report(whole(CIRCLES, layer("m", {"kind": "mat", "margin": 5})))
    base, mat = made["pieces"]
    assert (base["host"], base["matrix"]) == (None, None)
    assert (mat["host"], mat["panel"], mat["side"], mat["order"]) == ("base", "front", "outside", 0)
    assert (mat["parts"], mat["heights_mm"]) == (1, [0, 0.3])
    # 106 to the fold and 5 further on; cut 46 before its middle, which is 51 from the fold
    assert mat["matrix"] == pytest.approx([1, 0, 0, 1, 111, 5])
    assert made["card"]["weight_g"] > made["pieces"][0]["area_mm2"] * 240e-6


def test_a_layer_in_hand_is_shown_with_the_whole_card() -> None:
    card = whole([BLANK], *CARD, papers=PAPERS)
    seen = view(card, card.pieces[1], None, set())
    assert seen.flat is not None
    assert seen.rest is not None
    assert [g.piece for g in seen.flat.around] == ["base"]
    assert seen.rest.space.piece == "base"
    assert {la.piece for la in seen.rest.space.layers} == {"m", "in", "i"}
    assert seen.rest.closed == (105, 148)
    assert [p.parts for p in seen.rest.pieces] == [1, 1, 1, 1]


def test_what_goes_round_the_card_shows_the_cards_closed_size() -> None:
    card = whole([BLANK], layer("e", {"kind": "envelope"}, side="around"))
    seen = view(card, card.pieces[1], None, set())
    assert seen.rest is not None
    assert seen.rest.closed == (105, 148)
    assert seen.rest.space.piece == "e"


def test_papers_cost_their_share_of_a_sheet() -> None:
    papers = [{"id": "paper", "sheet_width": 210, "sheet_height": 296, "price": 0.5}]
    card = whole([BLANK], layer("m", {"kind": "mat", "margin": 0}), papers=papers)
    seen = view(card, card.pieces[0], None, set())
    assert seen.rest is not None
    costs = next(r for r in seen.rest.readings if r.name == "Paper costs")
    assert costs.values == [pytest.approx(0.5 * (0.5 + 0.25))]


def test_every_offer_can_be_added_and_says_where_it_lies() -> None:
    base = [{"kind": "artwork", "ref": "a", "surround": 6}, {"kind": "mirror"},
            {**WINDOW, "outline": {"kind": "circle", "diameter": 8}, "dx": 20, "dy": 25}]  # fmt: skip
    card = whole(base, artworks=SQUARES)
    offers = {o.title: o for o in offers_of(card.design, "front")}
    wanted = {"A mat", "Three stepping mats", "An insert", "A backing", "All layers of the artwork",
              "The whole card", "A figure on pads", "A word with two borders", "A band",
              "A strip behind an edge", "An envelope and its liner", "The artwork's shadow"}  # fmt: skip
    assert wanted <= set(offers)
    for offer in offers.values():
        assert offer.sheets
        assert {p.id for p in offer.pieces} >= {"base", *offer.added}
    assert len(offers["All layers of the artwork"].added) == 3
    figure = next(s for s in offers["A figure on pads"].sheets if s.name == "Figure")
    left, head, right, foot = figure.box
    assert 0.8 < (foot - head) / (right - left) < 1.1
    # the pictures show the side that its first piece lies on, and what is new lies on top
    whole_card = offers["The whole card"]
    assert whole_card.sheets[-1].piece in whole_card.added
    high = layer("high", {"kind": "mat"}, order=30)
    mats = {o.title: o for o in offers_of(whole(base, high, artworks=SQUARES).design, "front")}[
        "A mat"
    ]
    assert next(p for p in mats.pieces if p.id in mats.added).order == 31
    assert offers_of(whole([]).design, "") == []


def test_a_picture_is_made_without_a_browser(tmp_path: Path) -> None:
    design = whole([BLANK], *CARD, papers=PAPERS).design
    (tmp_path / "c.json").write_text(json.dumps(design.model_dump(mode="json")))
    run = [sys.executable, "-m", "stileblade", "picture", str(tmp_path / "c.json"), "--out"]
    done = subprocess.run([*run, str(tmp_path / "a.png"), "--pose", "apart"], check=False)
    assert done.returncode == 0
    assert max(Image.open(tmp_path / "a.png").size) == pytest.approx(1600, abs=2)
    wrong = subprocess.run(
        [*run, str(tmp_path / "b.png"), "--pose", "upside"], check=False, capture_output=True
    )
    assert (wrong.returncode, b"half-open" in wrong.stderr) == (2, True)
