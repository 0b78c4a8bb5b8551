"""A file sent to the cutter: the report, and what is needed to play it."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import Any

import numpy as np

from stileblade.cutter.play import Played, play
from stileblade.cutter.sent import Fault, Found, Sent, languages, read_sent
from stileblade.cutter.turned_out import Conditions, turned_out
from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.curves.vectors import norms
from stileblade.geometry.measures import rows
from stileblade.machine.machine import Machine
from stileblade.meant.report import Report, fault_data, off_sheet, report_data, report_of, worst
from stileblade.meant.sheet import MeantSheet
from stileblade.words import say

MOST = 60_000
"""Places that are shown."""
Told = Callable[[float, str], object]
"""Told the share done and what is done now."""


def cut_report(
    content: bytes,
    machine: Machine,
    meant: MeantSheet | None,
    conditions: Conditions,
    told: Told = lambda share, what: None,
) -> tuple[dict[str, Any], Report]:
    """The report as plain data, and as it is; places as the machine has them, y away from the person.
    ReadingError where the file is in no language."""
    told(0.0, "reading the file")
    sent = read_sent(content, machine)
    told(0.2, say("running {n:,} lines", n=len(sent.strokes)))
    size = _size(sent, meant, machine)
    if conditions.any:
        sent, machine = turned_out(sent, machine, conditions, size)
    played = play(sent, machine)
    told(0.45, "what comes loose")
    report = report_of(played, meant, askew_deg=conditions.askew_deg)
    told(0.9, "the report")
    off = off_sheet(report.outcome.played, size) if conditions.any and meant is None else []
    data = report_data(report)
    data["faults"] += [fault_data(f) for f in off]
    left_out = [{"line": one.line, "reason": one.reason} for one in sent.left_out]
    data["left_out"], data["language"] = left_out, languages()[sent.language].title
    data["size"] = list(size)
    data["askew_mm"] = _askew_by(sent, conditions, size)
    if data["askew_mm"]:
        said = _askew_text(conditions.askew_deg, data["askew_mm"])
        data["left_out"].append({"line": 0, "reason": said})
        if meant is not None and meant.registered:
            data["faults"].append(fault_data(_off_register(data["askew_mm"])))
    return data, report


def cut_data(
    content: bytes,
    machine: Machine,
    meant: MeantSheet | None,
    conditions: Conditions,
    told: Told = lambda share, what: None,
) -> dict[str, Any]:
    """The report with the runs to play and the outlines of what came loose."""
    data, report = cut_report(content, machine, meant, conditions, told)
    return {
        **data,
        "worst_mm": worst(report),
        "missing": _missing(report),
        "runs": _runs(report.outcome.played),
        "outlines": [rows.path_of(piece.face) for piece in report.outcome.loose],
    }


def _askew_by(sent: Sent, conditions: Conditions, size: tuple[float, float]) -> float:
    """By how many mm the place that is furthest from the sheet's middle lies beside where it was to be on the sheet."""
    if not conditions.askew_deg or not sent.strokes:
        return 0.0
    middle = np.array(size) / 2
    reach = max(float(norms(stroke.places - middle).max()) for stroke in sent.strokes)
    return round(2 * abs(math.sin(math.radians(conditions.askew_deg) / 2)) * reach, 3)


def _askew_text(degrees: float, by: float) -> str:
    return say(
        "The sheet lies askew by {degrees:g}°: what is done to it is off by up to {by:.2f} mm on the sheet.",
        degrees=degrees,
        by=by,
    )


def _off_register(by: float) -> Found:
    said = say(
        "The sheet is worked on in another set-up, too: the two are up to {by:.2f} mm off each other.",
        by=by,
    )
    return Found(Fault.ASKEW, said)


def _size(sent: Sent, meant: MeantSheet | None, machine: Machine) -> tuple[float, float]:
    if meant is not None:
        return meant.format_mm
    if sent.size is not None:
        return sent.size
    places = [s.places.max(axis=0) for s in sent.strokes]
    reach = np.max(places, axis=0) if places else np.array([machine.bed_width, machine.bed_height])
    return float(reach[0]) + 5, float(reach[1]) + 5


def _missing(report: Report) -> int:
    """Pieces that were meant and did not come loose."""
    return sum(meant is not None for meant, _ in report.joined)


def _runs(played: Played) -> list[dict[str, Any]]:
    step = max(1, sum(len(run.places) for run in played.runs) // MOST)
    return [
        {
            "tool": run.tool.name,
            "cuts": run.cuts,
            "from_s": round(float(run.times[0]), 3),
            "to_s": round(float(run.times[-1]), 3),
            "places": np.round(_thinned(run.places, step), 2).ravel().tolist(),
        }
        for run in played.runs
    ]


def _thinned(places: Floats, step: int) -> Floats:
    return np.concatenate([places[:-1:step], places[-1:]])
