"""From designs to paper: a job laid out, moved by hand, written, cut, reported; a server that ends meanwhile."""

from __future__ import annotations

import io
import json
import re
import time
import zipfile
from pathlib import Path

from playwright.sync_api import Locator, Page, Playwright, expect

from demo.running import Running
from tests.e2e.bench import select


def begin(page: Page, *designs: str) -> None:
    """A job with one card of each design."""
    page.goto("/jobs")
    page.get_by_role("button", name=re.compile("New job|Begin the first job")).first.click()
    page.wait_for_url(re.compile(r"/jobs/\d+$"))
    for name in designs:
        select(page.get_by_role("combobox", name="Add a design"))
        page.get_by_role("option", name=name, exact=True).click()
        expect(page.get_by_role("button", name=f"Take {name} out")).to_be_visible()
    laid(page)


def laid(page: Page) -> None:
    """When what the job holds now is laid out and shown."""
    for _ in range(300):
        job = layout_of(page)
        if job["layout"] and job["running"] is None and not job["changed"]:
            break
        page.wait_for_timeout(200)
    expect(page.locator(".thumb")).to_have_count(len(job["layout"]["sheets"]))  # type: ignore[index]
    expect(page.locator(".stage .piece").first).to_be_visible(timeout=60_000)
    expect(page.get_by_text("Laying out:")).to_have_count(0, timeout=60_000)


def layout_of(page: Page) -> dict[str, object]:
    number = page.url.rpartition("/")[2]
    return dict(page.request.get(f"/api/jobs/{number}").json())


def sheet_with(page: Page, pieces: int) -> int:
    """Opens the first sheet with so many pieces at least; its number."""
    sheets = layout_of(page)["layout"]["sheets"]  # type: ignore[index]
    number = next(i for i, s in enumerate(sheets) if len(s["pieces"]) >= pieces)
    page.get_by_role("button", name=re.compile(rf"^Sheet {number + 1},")).click()
    expect(page.locator(".stage .piece")).to_have_count(len(sheets[number]["pieces"]))
    return number


def drag(page: Page, piece: Locator, dx: float, dy: float) -> None:
    """From the piece's own first place on its outline, by so many pixels."""
    x, y = piece.evaluate(
        """(g) => {
          const path = g.querySelector('path'), m = path.getScreenCTM()
          const box = path.getBoundingClientRect()
          for (let i = 1; i < 40; i++) for (let j = 1; j < 40; j++) {
            const x = box.left + (box.width * i) / 40, y = box.top + (box.height * j) / 40
            if (path.isPointInFill(new DOMPoint(x, y).matrixTransform(m.inverse()))) return [x, y]
          }
          return [box.left, box.top]
        }"""
    )
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + dx / 2, y + dy / 2)
    page.mouse.move(x + dx, y + dy)
    page.wait_for_timeout(400)


DROP = """({name, text}) => {
  const carried = new DataTransfer()
  carried.items.add(new File([text], name, {type: 'text/plain'}))
  for (const kind of ['dragenter', 'dragover', 'drop'])
    document.querySelector('.cut').dispatchEvent(
      new DragEvent(kind, {bubbles: true, cancelable: true, dataTransfer: carried}))
}"""
"""Lets a file go over the page, as a hand with a pointer would."""


def test_a_job_from_designs_to_the_report(page: Page, tmp_path: Path) -> None:
    begin(page, "Whale with porthole", "Lighthouse", "Tide tables")
    number = sheet_with(page, 2)
    pieces = page.locator(".stage .piece")
    before = layout_of(page)["layout"]["sheets"][number]["pieces"]  # type: ignore[index]
    # onto its neighbour: what is wrong is said while it is dragged, and it goes back
    first, second = pieces.nth(0).bounding_box(), pieces.nth(1).bounding_box()
    assert first
    assert second
    drag(page, pieces.nth(1), first["x"] - second["x"], first["y"] - second["y"])
    expect(page.locator(".near.wrong")).to_contain_text(re.compile("It lies over|are asked for"))
    page.mouse.up()
    expect(page.get_by_text("It was put back.")).to_be_visible()
    assert layout_of(page)["layout"]["sheets"][number]["pieces"] == before  # type: ignore[index]
    # to the free foot of the sheet, with the keyboard a little further, and locked
    drag(page, pieces.nth(1), 0, 260)
    expect(page.locator(".near")).to_contain_text(re.compile("from|Nothing is near"))
    page.mouse.up()
    page.keyboard.press("Shift+ArrowDown")
    page.keyboard.press("l")
    expect(page.get_by_role("button", name="Unlock")).to_be_visible()
    moved = layout_of(page)["layout"]["sheets"][number]["pieces"][1]  # type: ignore[index]
    assert moved["locked"]
    assert moved["y"] > before[1]["y"] + 40
    # laid out again round what is locked
    page.get_by_label("Gap", exact=True).fill("3")
    page.get_by_label("Gap", exact=True).press("Enter")
    for _ in range(100):
        if all(s["gap"] == 3 for s in layout_of(page)["layout"]["sheets"]):  # type: ignore[index]
            break
        page.wait_for_timeout(200)
    laid(page)
    sheets = layout_of(page)["layout"]["sheets"]  # type: ignore[index]
    locked = [p for s in sheets for p in s["pieces"] if p["locked"]]
    assert [(p["x"], p["y"]) for p in locked] == [(moved["x"], moved["y"])]
    assert {s["gap"] for s in sheets} == {3}
    # passes, then the cutter
    page.get_by_text("Passes", exact=True).first.click()
    expect(page.locator(".passes li").first).to_be_visible(timeout=30_000)
    expect(page.locator(".passes")).to_contain_text("outer cuts")
    page.get_by_text("Cut it", exact=True).click()
    expect(page.locator(".verdict")).to_have_text(re.compile("As it was meant"), timeout=60_000)
    page.get_by_text("How it would turn out").click()
    worn = page.get_by_role("slider", name="Worn")
    for _ in range(10):
        worn.press("ArrowRight")
    expect(page.locator(".verdict")).not_to_have_text(re.compile("As it was meant"), timeout=60_000)
    # a file from elsewhere, let go over the page, is compared with the sheet
    stray = b"IN;SP1;PU2400,1600;PD4000,1600;PU;SP0;"
    page.evaluate(DROP, {"name": "stray.plt", "text": stray.decode()})
    expect(page.locator(".elsewhere")).to_contain_text("stray.plt", timeout=60_000)
    expect(page.locator(".report")).to_contain_text(
        "A line that is not in the design: knife, 40.0 mm"
    )
    page.get_by_role("button", name="Back to its own file").click()
    expect(page.locator(".elsewhere")).to_have_count(0, timeout=60_000)
    # files
    page.get_by_role("button", name="Save files …").click()
    dialog = page.get_by_role("dialog", name="Files for the machine")
    dialog.get_by_text("Plotter language").click()
    with page.expect_download(timeout=60_000) as waiting:
        dialog.get_by_role("button", name="Save").click()
    path = tmp_path / "sheets.zip"
    waiting.value.save_as(path)
    with zipfile.ZipFile(io.BytesIO(path.read_bytes())) as archive:
        names = archive.namelist()
        assert names[0] == "contents.html"
        assert sum(n.endswith(".hpgl") for n in names) == len(sheets)
        meant = json.loads(archive.read(next(n for n in names if n.endswith(".sheet.json"))))
        assert meant["pieces"]
        content = archive.read(next(n for n in names if n.endswith("-all.hpgl")))
    # the first sheet's file as one from elsewhere: neither good nor bad until it is compared
    page.goto("/cutter")
    page.get_by_label("File for the cutter").set_input_files(
        {"name": "sheet.hpgl", "mimeType": "text/plain", "buffer": content}
    )
    expect(page.locator(".verdict.neutral")).to_contain_text("would come loose", timeout=60_000)
    page.locator(".against").click()
    page.get_by_role("option", name=re.compile("^Sheet 1$")).first.click()
    expect(page.locator(".verdict.good")).to_have_text(
        re.compile("As it was meant"), timeout=60_000
    )


def test_any_file_is_sent_to_the_cutter(page: Page) -> None:
    page.goto("/cutter")
    ring = b"IN;SP1;PU2400,1600;PD;AA1600,1600,360;PU;PU2800,1600;PD;AA1600,1600,360;PU;SP0;"
    page.get_by_label("File for the cutter").set_input_files(
        {"name": "ring.plt", "mimeType": "text/plain", "buffer": ring}
    )
    expect(page.locator(".verdict")).to_contain_text("2 pieces would come loose", timeout=30_000)
    page.get_by_role("button", name="Play").click()
    expect(page.get_by_role("button", name="Pause")).to_be_visible()
    page.get_by_label("File for the cutter").set_input_files(
        {"name": "letter.txt", "mimeType": "text/plain", "buffer": b"hello"}
    )
    expect(page.get_by_role("alert")).to_contain_text("no language that the machine understands")


def test_spares_a_way_back_and_a_spoiled_piece(page: Page) -> None:
    begin(page, "Whale with porthole")
    first = layout_of(page)["layout"]
    spares = page.get_by_label("Spares of Whale with porthole")
    spares.fill("many")
    spares.press("Enter")
    expect(page.get_by_text("is not a number of spares")).to_be_visible()
    spares.fill("2")
    spares.press("Enter")
    way_back = page.get_by_role("button", name=re.compile("^Layout before, "))
    expect(way_back).to_be_visible(timeout=60_000)
    expect(page.get_by_text("3 in all")).to_be_visible()
    expect(page.locator(".stage .piece")).to_have_count(3)
    way_back.click()
    expect(page.locator(".stage .piece")).to_have_count(1)
    expect(spares).to_have_value("")
    assert layout_of(page)["layout"] == first
    # what was spoiled becomes a job of its own
    before = page.url
    page.locator(".stage .piece text").first.click(force=True)
    page.get_by_role("button", name="Once more").click()
    page.get_by_role("menuitem", name="This piece").click()
    expect(page).not_to_have_url(before)
    laid(page)
    expect(page.get_by_role("heading", name=re.compile("once more$"))).to_be_visible()
    expect(page.locator(".pieces")).to_have_text("Only base")
    expect(page.locator(".stage .piece")).to_have_count(1)


def test_a_job_begins_from_a_design(page: Page) -> None:
    page.goto("/")
    page.get_by_label("Actions for Shell", exact=True).click()
    page.get_by_role("menuitem", name="Lay out on sheets").click()
    page.wait_for_url(re.compile(r"/jobs/\d+$"))
    laid(page)
    expect(page.locator(".readings")).to_contain_text("Cards weigh")


def test_a_server_that_ends_while_a_job_is_laid_out(playwright: Playwright, tmp_path: Path) -> None:
    """Killed in the middle; the next one goes on with it when somebody looks."""
    running = Running(tmp_path / "data")
    request = playwright.request.new_context(base_url=running.address)
    designs = request.get("/api/designs").json()
    token = {c.get("name"): c.get("value") for c in request.storage_state()["cookies"]}["csrftoken"]
    headers = {"x-csrftoken": token or ""}
    wanted = [{"design": d["id"], "count": 12} for d in designs[:6]]
    job = request.post(
        "/api/jobs", data={"name": "Large", "designs": wanted}, headers=headers
    ).json()
    run = request.post(f"/api/jobs/{job['id']}/lay", headers=headers).json()
    running.process.kill()
    running.process.wait(20)
    request.dispose()
    with Running(tmp_path / "data") as second:
        request = playwright.request.new_context(base_url=second.address)
        request.get("/")
        states = set()
        for _ in range(400):
            seen = request.get(f"/api/runs/{run['id']}").json()
            states.add(seen["state"])
            if seen["state"] in ("done", "failed"):
                break
            time.sleep(0.2)
        assert seen["state"] == "done", states
        assert request.get(f"/api/jobs/{job['id']}").json()["layout"]["sheets"]
        request.dispose()


def test_pieces_turned_over_and_a_roll(page: Page) -> None:
    """A piece turned over by its key is scored in a second set-up, which is played and cut; the paper of a
    roll is as long as is needed."""
    begin(page, "Shell")
    number = sheet_with(page, 1)
    pieces = page.locator(".stage .piece")
    drag(page, pieces.first, 0, 0)
    page.mouse.up()
    expect(page.get_by_role("button", name="Turn over")).to_be_visible()
    page.keyboard.press("o")
    expect(page.locator(".in-hand")).to_contain_text("inside up")
    expect(page.locator(".stage .hole")).to_have_count(3)
    sheet = layout_of(page)["layout"]["sheets"][number]  # type: ignore[index]
    assert sheet["pieces"][0]["flipped"]
    page.get_by_text("Passes", exact=True).first.click()
    page.get_by_text("Turned over", exact=True).click(timeout=30_000)
    expect(page.locator(".passes li").first).to_contain_text("score")
    page.get_by_text("Cut it", exact=True).click()
    expect(page.locator(".verdict")).to_have_text(re.compile("As it was meant"), timeout=60_000)
    page.get_by_text("Turned over", exact=True).click()
    expect(page.locator(".verdict")).to_have_text(re.compile("As it was meant"), timeout=60_000)
    page.get_by_text("Sheets", exact=True).first.click()
    form = page.get_by_role("combobox", name=f"Format of {sheet['paper']}")
    select(form)
    form.fill("roll 320")
    form.press("Enter")
    page.wait_for_timeout(300)
    laid(page)
    roll = layout_of(page)["layout"]["sheets"][number]  # type: ignore[index]
    assert roll["roll"]
    assert roll["width"] == 320
    foot = max(p["y"] + p["height"] for p in roll["pieces"])
    assert foot <= roll["height"] - roll["edge"] < foot + 10
    expect(page.locator(".readings")).to_contain_text(f"{roll['height']:g} mm")
