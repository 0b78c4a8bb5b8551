"""From an edit to its picture, in the browser, against the running application."""

from __future__ import annotations

import itertools
import json
import statistics
import tempfile
import time
from collections.abc import Callable
from pathlib import Path
from typing import Any

from playwright.sync_api import Page, sync_playwright

from bench.evaluation import document
from bench.shapes import figure_300, outline_20000
from demo.chromium import launch
from demo.running import Running

EDITS = 30
_CREATE = """async (document) => {
    const token = document_cookie()
    function document_cookie() { return window.document.cookie.match(/csrftoken=([^;]*)/)[1] }
    const answer = await fetch('/api/designs', {
        method: 'POST', headers: {'Content-Type': 'application/json', 'X-CSRFToken': token},
        body: JSON.stringify({document}),
    })
    return (await answer.json()).id
}"""
# typed, taken by Enter, and timed until the frame after the new outline is in the page, and until the one
# after the dimensions about it are
_EDIT = """async (text) => {
    const input = [...document.querySelectorAll('[aria-label="Step in hand"] input')]
        .find((i) => i.getAttribute('aria-label') === 'Lap')
    const path = document.querySelector('[data-testid=flat-path]')
    input.focus()
    input.value = text
    input.dispatchEvent(new Event('input', {bubbles: true}))
    const started = performance.now()
    const drawn = (node, what) => new Promise((done) => {
        const seen = new MutationObserver(() => {
            seen.disconnect()
            requestAnimationFrame(() => setTimeout(() => done(performance.now() - started)))
        })
        seen.observe(node, what)
    })
    const outline = drawn(path, {attributes: true, attributeFilter: ['d']})
    const all = drawn(path.closest('svg').querySelector('.dimensions'), {subtree: true, childList: true, attributes: true})
    input.dispatchEvent(new KeyboardEvent('keydown', {key: 'Enter', bubbles: true}))
    return Promise.all([outline, all])
}"""
_EDIT_FIRST = _EDIT.replace("'Lap'", "'Margin'")


def measure(
    page: Page, data: dict[str, Any], title: str, script: str, values: list[str]
) -> list[tuple[float, float]]:
    """For each value milliseconds until the outline is drawn, and until all of the flat view is."""
    number = page.evaluate(_CREATE, data)
    page.goto(f"{page.url.split('/designs')[0].rstrip('/')}/designs/{number}")
    page.wait_for_selector("[data-testid=flat-path]")
    page.locator("[data-step]", has_text=title).click()
    page.wait_for_timeout(1500)
    times = []
    for value in values:
        outline, everything = page.evaluate(script, value)
        times.append((outline, everything))
        page.wait_for_timeout(400)
    return times


MOVES = 90
DRAG_AIM_MS = 16.0
DRAWN_AIM = 30
PAUSE_AIM_MS = 100
# a move of the pointer in every frame that the browser draws, for as many frames; the pointer was
# put down before, so that the thing has caught it
_DRAG = """([name, x, y, moves]) => new Promise((done) => {
    const outline = document.querySelector('.handle .outline, .handle .frame')
    let n = 0, drawn = 0, started = 0, seen = ''
    function frame(now) {
        if (!n) started = now
        const shape = outline.outerHTML
        if (shape !== seen) drawn += 1
        seen = shape
        if (n === moves) return done([drawn, now - started])
        n += 1
        const [dx, dy] = [3 + 0.5 * n, 0.3 * n]
        document.querySelector(`[data-handle=${name}]`).dispatchEvent(new PointerEvent('pointermove', {
            bubbles: true, pointerId: 1, isPrimary: true, buttons: 1, clientX: x + dx, clientY: y + dy,
        }))
        requestAnimationFrame(frame)
    }
    requestAnimationFrame(frame)
})"""
# moves, then rests: milliseconds from the last move to the frame with its exact outcome
_PAUSE = """([name, x, y, nth]) => new Promise((done) => {
    const path = document.querySelector('[data-testid=flat-path]')
    let n = 0, last = 0, changed = 0
    const seen = new MutationObserver(() => requestAnimationFrame(() => (changed = performance.now())))
    seen.observe(path, {attributes: true, attributeFilter: ['d']})
    function frame() {
        n += 1
        last = performance.now()
        document.querySelector(`[data-handle=${name}]`).dispatchEvent(new PointerEvent('pointermove', {
            bubbles: true, pointerId: 1, isPrimary: true, buttons: 1, clientX: x + nth + 0.7 * n, clientY: y - 0.4 * n,
        }))
        if (n < 20) return requestAnimationFrame(frame)
        setTimeout(() => { seen.disconnect(); done(changed - last) }, 900)
    }
    requestAnimationFrame(frame)
})"""
PAUSES = 8


def dragged(page: Page, design: str, step: str, handle: str) -> tuple[float, float, float]:
    """Milliseconds of script for one move of a drag, moves that were drawn in a second, and
    milliseconds (median) from a pause to its exact outcome."""
    page.goto("/")
    page.get_by_role("button", name=f"Open: {design}", exact=True).click()
    page.locator("[data-step]", has_text=step).first.click()
    page.wait_for_load_state("networkidle")
    box = page.locator(f"[data-handle={handle}] .cross").first.bounding_box()
    assert box is not None
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    tracing = page.context.new_cdp_session(page)
    tracing.send("Performance.enable")

    def script() -> float:
        found = tracing.send("Performance.getMetrics")["metrics"]
        return float(next(m["value"] for m in found if m["name"] == "ScriptDuration"))

    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 3, y, steps=3)
    before = script()
    drawn, milliseconds = page.evaluate(_DRAG, [handle, x, y, MOVES])
    spent = (script() - before) / MOVES * 1e3
    page.wait_for_timeout(500)
    pauses = [float(page.evaluate(_PAUSE, [handle, x, y, 3 * n])) for n in range(PAUSES)]
    page.mouse.up()
    return spent, drawn / milliseconds * 1e3, statistics.median(pauses)


def drags(page: Page) -> None:
    print(f"{'one move of a drag, ms of script':44}{'ms':>8}{'aim':>8}{'drawn/s':>10}{'aim':>6}"
          f"{'exact, ms after a pause':>26}{'aim':>6}")  # fmt: skip
    for design, step, handle in (
        ("Porthole with a grille", "Window", "dx"),
        ("Sail over the edge", "Overhang", "out"),
        ("Tides, cut as a stencil", "Stencil", "dx"),
    ):
        spent, drawn, pause = dragged(page, design, step, handle)
        title = f"{design}: {step.lower()}"
        print(f"{title:44}{spent:8.1f}{DRAG_AIM_MS:8.0f}{drawn:10.0f}{DRAWN_AIM:6}"
              f"{pause:26.0f}{PAUSE_AIM_MS:6}")  # fmt: skip


_BARE = """() => new Promise((done) => {
    const begun = performance.now()
    let frames = 0
    const step = () => {
        frames += 1
        const passed = performance.now() - begun
        if (passed < 700) requestAnimationFrame(step)
        else done(frames / passed * 1000)
    }
    requestAnimationFrame(step)
})"""
PLAY_AIM = 30


def played(page: Page, design: str) -> tuple[float, float, float]:
    """Frames a second of the folded view at 640 x 480, the best of three: while it plays, while the
    pointer turns it, and of a page that draws nothing."""
    page.goto("/")
    page.get_by_role("button", name=f"Open: {design}", exact=True).click()
    page.locator(".folded .holder").evaluate(
        "e => Object.assign(e.style, {position: 'fixed', left: 0, top: 0, width: '640px', "
        "height: '480px', zIndex: 9})"
    )
    canvas = page.locator("canvas")
    page.wait_for_timeout(800)

    def rate(act: Callable[[], object]) -> float:
        found = []
        for _ in range(3):
            first, begun = int(canvas.get_attribute("data-frames") or 0), time.monotonic()
            act()
            drawn = int(canvas.get_attribute("data-frames") or 0) - first
            found.append(drawn / (time.monotonic() - begun))
        return max(found)

    canvas.focus()
    canvas.press(" ")
    page.wait_for_timeout(300)
    playing = rate(lambda: page.wait_for_timeout(700))
    canvas.press(" ")
    page.mouse.move(100, 240)
    page.mouse.down()
    places = itertools.cycle([(560, 300), (100, 240)])
    turning = rate(lambda: page.mouse.move(*next(places), steps=40))
    page.mouse.up()
    return playing, turning, float(page.evaluate(_BARE))


def twenty_layers() -> dict[str, Any]:
    """A card with twenty stars on each other, each on pads."""
    stars = [
        {"id": f"star-{n}", "name": f"Star {n}", "host": "base", "order": n, "fixing": "pads",
         "steps": [{"kind": "overlay", "turn": 9 * n,
                    "outline": {"kind": "star", "points": 12, "diameter": 90 - 3 * n}}]}
        for n in range(20)
    ]  # fmt: skip
    base = {"id": "base", "name": "Base", "steps": [{"kind": "blank"}]}
    return {"name": "Twenty layers", "pieces": [base, *stars]}


def plays(page: Page) -> None:
    page.goto("/")
    page.wait_for_load_state("networkidle")
    page.evaluate(_CREATE, twenty_layers())
    print(f"{'folded view, frames a second':44}{'played':>8}{'turned':>8}{'bare':>8}{'aim':>8}")
    for design in ("Row of beach huts", "Shell", "Twenty layers"):
        playing, turning, bare = played(page, design)
        print(f"{design:44}{playing:8.0f}{turning:8.0f}{bare:8.0f}{PLAY_AIM:8}")


def report() -> None:
    print(
        f"{'edit to picture in the browser, ms':44}{'median':>8}{'p95':>8}{'aim':>8}{'all of it':>12}"
    )
    figure, fine = figure_300(), outline_20000()
    laps = [f"{12 + 0.1 * k:.1f}" for k in range(1, EDITS + 1)]
    margins = [f"{2.5 + 0.02 * k:.2f}" for k in range(1, EDITS + 1)]
    cases = (
        ("figure of 300 cubics: lap", document(figure), "Mirror", _EDIT, laps, 60),
        ("20,000-vertex outline: lap", document(fine), "Mirror", _EDIT, laps, 300),
        ("20,000-vertex outline: surround", document(fine, grow=2.5), "Surround", _EDIT_FIRST,
         margins, 500),
    )  # fmt: skip
    with (
        tempfile.TemporaryDirectory() as folder,
        Running(Path(folder)) as running,
        sync_playwright() as p,
    ):
        browser = launch(p)
        page = browser.new_page(viewport={"width": 1280, "height": 800}, base_url=running.address)
        for name, data, title, script, values, aim in cases:
            page.goto(running.address)
            page.wait_for_load_state("networkidle")
            times = measure(page, json.loads(json.dumps(data)), title, script, values)
            outline, everything = zip(*times, strict=True)
            p95 = statistics.quantiles(outline, n=20)[-1]
            print(f"{name:44}{statistics.median(outline):8.0f}{p95:8.0f}{aim:8}"
                  f"{statistics.median(everything):12.0f}")  # fmt: skip
        drags(page)
        plays(page)
        browser.close()
