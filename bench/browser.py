"""From an edit to its picture, in the browser, against the running application."""

from __future__ import annotations

import json
import statistics
import tempfile
import time
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
# typed, taken by Enter, and timed until the frame after the new outline is in the page
_EDIT = """async (text) => {
    const input = [...document.querySelectorAll('[aria-label="Step in hand"] input')]
        .find((i) => i.getAttribute('aria-label') === 'Lap')
    const path = document.querySelector('[data-testid=flat-path]')
    input.focus()
    input.value = text
    input.dispatchEvent(new Event('input', {bubbles: true}))
    const started = performance.now()
    const changed = new Promise((done) => {
        const seen = new MutationObserver(() => { seen.disconnect(); done() })
        seen.observe(path, {attributes: true, attributeFilter: ['d']})
    })
    input.dispatchEvent(new KeyboardEvent('keydown', {key: 'Enter', bubbles: true}))
    await changed
    await new Promise((done) => requestAnimationFrame(() => setTimeout(done)))
    return performance.now() - started
}"""
_EDIT_FIRST = _EDIT.replace("'Lap'", "'Margin'")


def measure(
    page: Page, data: dict[str, Any], title: str, script: str, values: list[str]
) -> list[float]:
    number = page.evaluate(_CREATE, data)
    page.goto(f"{page.url.split('/designs')[0].rstrip('/')}/designs/{number}")
    page.wait_for_selector("[data-testid=flat-path]")
    page.locator("[data-step]", has_text=title).click()
    page.wait_for_timeout(1500)
    times = []
    for value in values:
        times.append(page.evaluate(script, value))
        page.wait_for_timeout(400)
    return times


MOVES = 60
DRAG_AIM_MS = 16.0


def dragged(page: Page, design: str, step: str, handle: str) -> tuple[float, float]:
    """Milliseconds of script for one move of a drag, and moves that were drawn in a second."""
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
    page.evaluate(
        "() => { window.drawn = 0; const path = document.querySelector('.handle .outline, .handle .frame');"
        " new MutationObserver(() => window.drawn++).observe(path, {attributes: true}) }"
    )
    before, started = script(), time.perf_counter()
    for n in range(MOVES):
        page.mouse.move(x + 3 + 0.5 * n, y + 0.3 * n)
    seconds = time.perf_counter() - started
    spent = (script() - before) / MOVES * 1e3
    drawn = int(page.evaluate("() => window.drawn"))
    page.mouse.up()
    return spent, drawn / seconds


def drags(page: Page) -> None:
    print(f"{'one move of a drag, ms of script':44}{'ms':>8}{'aim':>8}{'drawn/s':>10}")
    for design, step, handle in (
        ("Porthole with a grille", "Window", "dx"),
        ("Sail over the edge", "Overhang", "out"),
        ("Tides, cut as a stencil", "Stencil", "dx"),
    ):
        spent, drawn = dragged(page, design, step, handle)
        title = f"{design}: {step.lower()}"
        print(f"{title:44}{spent:8.1f}{DRAG_AIM_MS:8.0f}{drawn:10.0f}")


def report() -> None:
    print(f"{'edit to picture in the browser, ms':44}{'median':>8}{'p95':>8}{'aim':>8}")
    figure, outline = figure_300(), outline_20000()
    laps = [f"{12 + 0.1 * k:.1f}" for k in range(1, EDITS + 1)]
    margins = [f"{2.5 + 0.02 * k:.2f}" for k in range(1, EDITS + 1)]
    cases = (
        ("figure of 300 cubics: lap", document(figure), "Mirror", _EDIT, laps, 100),
        ("20,000-vertex outline: lap", document(outline), "Mirror", _EDIT, laps, 300),
        ("20,000-vertex outline: surround", document(outline, grow=2.5), "Surround", _EDIT_FIRST,
         margins, 700),
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
            p95 = statistics.quantiles(times, n=20)[-1]
            print(f"{name:44}{statistics.median(times):8.0f}{p95:8.0f}{aim:8}")
        drags(page)
        browser.close()
