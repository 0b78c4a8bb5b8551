"""A laid out job as plain data, as the command line prints it."""

from __future__ import annotations

from typing import Any

from stileblade.sheets.laying import Laid
from stileblade.sheets.sheet import Lying, Sheet


def sheet_data(sheet: Sheet) -> dict[str, Any]:
    """A sheet: places of pieces' boxes in mm from its head left, turns clockwise in degrees."""
    return {
        "paper": sheet.paper.id,
        "paper_name": sheet.paper.name,
        "number": sheet.number,
        "format_mm": [sheet.form.width, sheet.form.height],
        "use": round(sheet.use, 4),
        "pieces": [lying_data(lying) for lying in sheet.lying],
    }


def lying_data(lying: Lying) -> dict[str, Any]:
    placed = lying.placed
    return {
        "design": lying.wanted.card.name,
        "piece": lying.wanted.name,
        "x_mm": round(placed.x, 4),
        "y_mm": round(placed.y, 4),
        "turn_deg": placed.turn,
        "flipped": placed.part.flipped,
        "size_mm": [round(v, 4) for v in placed.part.size(placed.turn)],
        "matrix": [[round(float(v), 9) for v in row] for row in lying.matrix],
    }


def job_data(laid: Laid) -> dict[str, Any]:
    """All sheets, how few there could be by area, and what would save one."""
    return {
        "sheets": [sheet_data(sheet) for sheet in laid.sheets],
        "bound": laid.bound,
        "advice": list(laid.advice),
        "price": round(laid.price, 4),
        "weight_g": round(laid.weight, 3),
    }
