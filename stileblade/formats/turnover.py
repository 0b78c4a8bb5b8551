"""Turning a sheet over, for what is made from its other side: about its long middle, for pieces and sheets alike."""

from __future__ import annotations

from enum import StrEnum

from stileblade.geometry.curves.segments import Floats
from stileblade.geometry.curves.transforms import mirror_across


class Turnover(StrEnum):
    """What changes places when a sheet is turned over."""

    LEFT_FOR_RIGHT = "left for right"
    HEAD_FOR_FOOT = "head for foot"

    @classmethod
    def of(cls, width: float, height: float) -> Turnover:
        """How a sheet of that size, in mm, is turned over: about its long middle."""
        return cls.LEFT_FOR_RIGHT if height >= width else cls.HEAD_FOR_FOOT

    def matrix(self, width: float, height: float) -> Floats:
        """From where a place (x, y) is on the sheet to where it is once that is turned over, as (2, 3)."""
        if self is Turnover.LEFT_FOR_RIGHT:
            return mirror_across(axis="x", at=width / 2)
        return mirror_across(axis="y", at=height / 2)
