"""The whole card on the bench: pieces added by pictures, picked, moved, restacked, exported."""

from __future__ import annotations

import json
import re
import zipfile
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Locator, Page, expect

from tests.e2e.bench import Bench, select

NUMBER = re.compile(r"-?[0-9.]+")


@pytest.fixture
def bench(page: Page) -> Bench:
    made = Bench(page)
    made.new(size="ISO A6")
    return made


def add_piece(bench: Bench, title: str) -> None:
    bench.page.get_by_role("button", name="+ add a piece").click()
    dialog = bench.page.get_by_role("dialog", name="Add a piece")
    dialog.get_by_role("option").filter(has=bench.page.get_by_text(title, exact=True)).click()
    expect(dialog).to_have_count(0)
    bench.settled()


def pieces(page: Page) -> Locator:
    return page.get_by_label("Pieces of the card").locator(".row .name > span")


def document(bench: Bench) -> dict[str, Any]:
    bench.settled()
    answer = bench.page.request.get(f"/api/designs/{bench.number}")
    found: dict[str, Any] = json.loads(answer.text())["document"]
    return found


def choose(page: Page, label: str, option: str) -> None:
    select(page.get_by_label("Pieces of the card").get_by_label(label, exact=True))
    page.get_by_role("option", name=option, exact=True).click()


def test_three_mats_come_in_one_go_and_follow_the_card(bench: Bench) -> None:
    add_piece(bench, "Three stepping mats")
    expect(pieces(bench.page)).to_have_text(["Mat 3", "Mat 2", "Mat 1", "Base"])
    assert bench.value("Margin") == "3"
    expect(bench.page.get_by_label("Step in hand").get_by_text("99 mm")).to_be_visible()
    # another size: margins stay
    bench.page.locator(".tile .pick").first.click()
    bench.page.get_by_label("Card width").fill("120")
    bench.page.get_by_label("Card width").press("Enter")
    bench.settled()
    bench.pick("Mat")
    expect(bench.page.get_by_label("Step in hand").get_by_text("114 mm")).to_be_visible()


def test_a_figure_is_dragged_on_the_open_card_and_moved_by_keys(bench: Bench) -> None:
    page = bench.page
    add_piece(bench, "A figure on pads")
    page.get_by_role("button", name="card outside").click()
    view = page.get_by_test_id("assembled-view")
    figure = view.locator("path[data-piece='piece-2']")
    frame = figure.bounding_box()
    assert frame is not None
    x, y = frame["x"] + frame["width"] / 2, frame["y"] + frame["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 40, y - 30, steps=8)
    moving = figure.bounding_box()
    assert moving is not None
    assert moving["x"] - frame["x"] == pytest.approx(40, abs=2)
    page.mouse.up()
    start = document(bench)["pieces"][1]["steps"][0]
    assert start["dx"] > 2
    assert start["dy"] < -2
    after = figure.bounding_box()
    assert after is not None
    assert after["x"] - frame["x"] == pytest.approx(40, abs=2)
    view.locator("svg").focus()
    page.keyboard.press("Shift+ArrowLeft")
    assert document(bench)["pieces"][1]["steps"][0]["dx"] == pytest.approx(start["dx"] - 10)
    page.get_by_role("button", name="Undo").click()
    assert document(bench)["pieces"][1]["steps"][0]["dx"] == pytest.approx(start["dx"])


def test_the_list_restacks_hides_copies_and_removes(bench: Bench) -> None:
    page = bench.page
    add_piece(bench, "A word with two borders")
    expect(pieces(page)).to_have_text(["Word", "Border 2", "Border 5", "Base"])
    pieces(page).filter(has_text="Border 5").click()
    page.get_by_role("button", name="raise").click()
    expect(pieces(page)).to_have_text(["Word", "Border 5", "Border 2", "Base"])
    choose(page, "Fixed by", "pads")
    assert [p["fixing"] for p in document(bench)["pieces"]].count("pads") == 1
    page.get_by_role("button", name="card outside").click()
    border = page.get_by_test_id("assembled-view").locator("path[data-piece='piece-3']")
    expect(border).to_have_count(1)
    row = page.locator(".row", has_text="Border 2")
    row.get_by_role("button", name="seen").click()
    expect(border).to_have_count(0)
    page.get_by_role("button", name="on the back too").click()
    bench.settled()
    assert [p["panel"] for p in document(bench)["pieces"]].count("back") == 1
    page.get_by_role("button", name="remove", exact=True).first.click()
    expect(pieces(page)).to_have_count(4)


def test_a_layer_over_the_fold_is_decided_by_a_press(bench: Bench) -> None:
    add_piece(bench, "A figure on pads")
    bench.type("To the right", "-50")
    checks = bench.checks()
    finding = checks.filter(has_text="It lies across fold")
    expect(finding).to_be_visible()
    finding.get_by_role("button", name="crease it with the fold").click()
    bench.settled()
    expect(finding).to_have_count(0)
    steps = document(bench)["pieces"][1]["steps"]
    assert [s["kind"] for s in steps] == ["overlay", "at-folds"]


def test_layers_are_in_the_folded_view_and_come_apart(bench: Bench) -> None:
    page = bench.page
    add_piece(bench, "A mat")
    canvas = page.get_by_label("The folded card; arrow keys turn it")
    expect(canvas).to_have_attribute("data-still", "true")
    before = int(canvas.get_attribute("data-frames") or 0)
    page.get_by_label("Taken apart").fill("15")
    expect(canvas).not_to_have_attribute("data-frames", str(before))
    with page.expect_download() as download:
        page.get_by_role("button", name="picture").click()
        page.get_by_role("menuitem", name="SVG").click()
    drawn = download.value.path().read_text()
    assert drawn.count("<path") == 3


def test_all_pieces_are_exported_in_their_measures(bench: Bench, tmp_path: Path) -> None:
    page = bench.page
    bench.add("window")
    add_piece(bench, "A mat")
    add_piece(bench, "An envelope and its liner")
    page.get_by_role("button", name="Cut files").click()
    dialog = page.get_by_role("dialog", name="Cut files")
    select(dialog.get_by_label("Pieces", exact=True).first)
    page.get_by_role("option", name=re.compile("each")).first.click()
    with page.expect_download() as download:
        dialog.get_by_role("button", name=re.compile("^Save( all the same)?$")).click()
    path = tmp_path / "all.zip"
    download.value.save_as(path)
    with zipfile.ZipFile(path) as archive:
        files = {n: archive.read(n).decode() for n in archive.namelist()}
    assert len(files) == 4
    mat = next(text for name, text in files.items() if "mat" in name.lower())
    # all its outlines but the round window are straight: their corners are the measure
    boxes = []
    for path in re.findall(r' d="([^"]+)"', mat):
        if not set("ACQac") & set(path):
            spots = [
                tuple(map(float, NUMBER.findall(p))) for p in re.split("[MLZ]", path) if p.strip()
            ]
            xs, ys = zip(*(s for s in spots if len(s) == 2), strict=True)
            boxes.append((max(xs) - min(xs), max(ys) - min(ys)))
    assert max(boxes) == pytest.approx((97, 140), abs=1e-3)


def test_a_paper_is_changed_for_all_its_pieces_or_for_one_alone(bench: Bench) -> None:
    page = bench.page
    add_piece(bench, "Three stepping mats")

    def kept() -> tuple[dict[str, Any], dict[str, str]]:
        made = document(bench)
        return {p["id"]: p for p in made["papers"]}, {p["name"]: p["paper"] for p in made["pieces"]}

    # the first mat is in hand
    page.get_by_label("Pieces of the card").get_by_role("button", name="all papers …").click()
    dialog = page.get_by_role("dialog", name="Papers of the card")
    own = kept()[1]["Mat 1"]
    dialog.get_by_label("Thickness", exact=True).fill("0.5")
    dialog.get_by_label("Thickness", exact=True).press("Enter")
    assert kept()[0][own]["thickness"] == 0.5
    # the base's paper in its place: base and mat are of one now
    base = kept()[1]["Base"]
    select(dialog.get_by_label("Put another in its place"))
    named = page.get_by_role("option", name=kept()[0][base]["name"], exact=True)
    named.filter(visible=True).click()
    papers, given = kept()
    assert given["Mat 1"] == given["Base"] == base
    assert own not in papers
    dialog.get_by_role("button", name=re.compile("for Mat 1 alone$")).click()
    dialog.get_by_label("Runs of a cut").fill("3")
    dialog.get_by_label("Runs of a cut").press("Enter")
    papers, given = kept()
    assert given["Mat 1"] != given["Base"]
    assert {key: p["cut_runs"] for key, p in papers.items() if p["cut_runs"] != 1} == {
        given["Mat 1"]: 3
    }


def test_layers_are_lined_up_on_the_open_card(bench: Bench) -> None:
    """A figure on pads, twice; the second moved away, and lined up with the first again."""
    page = bench.page
    add_piece(bench, "A figure on pads")
    page.get_by_label("Pieces of the card").get_by_role("button", name="duplicate").click()
    page.get_by_role("button", name="card outside").click()
    view = page.get_by_test_id("assembled-view")
    expect(view.locator("path[data-piece='piece-3']")).to_be_visible()
    view.locator("svg").focus()
    # one after the other, without waiting for the picture
    page.keyboard.press("Shift+ArrowRight")
    page.keyboard.press("Shift+ArrowDown")
    bench.settled()

    def box(piece: str) -> dict[str, float]:
        found = view.locator(f"path[data-piece='{piece}']").bounding_box()
        assert found is not None
        return dict(found)

    moved = document(bench)["pieces"][2]["steps"][0]
    assert (moved["dx"], moved["dy"]) == (10, 10)
    view.get_by_role("button", name="Line up with others").click()
    dialog = page.get_by_role("dialog", name="Line up and spread out")
    dialog.locator(".el-checkbox").first.click()
    dialog.get_by_role("button", name="By their left edges").click()
    expect(dialog).to_have_count(0)
    bench.settled()
    expect(view.locator("path[data-piece='piece-2']")).to_be_visible()
    page.wait_for_timeout(500)
    # the one in hand stays, the other comes to it
    assert box("piece-2")["x"] == pytest.approx(box("piece-3")["x"], abs=0.5)
    assert box("piece-2")["y"] < box("piece-3")["y"] - 5
    made = document(bench)["pieces"]
    assert made[1]["steps"][0]["dx"] == pytest.approx(made[2]["steps"][0]["dx"], abs=1e-6)
