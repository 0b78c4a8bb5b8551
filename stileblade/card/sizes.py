"""Standard card sizes with their envelopes. Width x height upright, closed, in mm."""

from __future__ import annotations

from dataclasses import dataclass

from pydantic import Field

from stileblade.fields import Values, length
from stileblade.units import MM_PER_IN


class Envelope(Values):
    """An envelope by its inside measures."""

    name: str = Field("", title="Name", description="What the envelope is called.", max_length=60)
    width: float = length(114, "Width", "Inside, the shorter side.", least=10)
    height: float = length(162, "Height", "Inside, the longer side.", least=10)


class CardSize(Values):
    """A closed card's measures, upright, and the envelope it is meant for."""

    name: str = Field("Own size", title="Name", description="What it is called.", max_length=60)
    width: float = length(105, "Width", "Closed, upright.", least=10)
    height: float = length(148, "Height", "Closed, upright.", least=10)
    envelope: Envelope | None = Field(
        None, title="Envelope", description="The envelope it goes in, if any."
    )


def _in(*values: float) -> list[float]:
    return [v * MM_PER_IN for v in values]


def _size(name: str, card: list[float], envelope_name: str, inside: list[float]) -> CardSize:
    return CardSize(
        name=name,
        width=card[0],
        height=card[1],
        envelope=Envelope(name=envelope_name, width=inside[0], height=inside[1]),
    )


STANDARD_SIZES: tuple[CardSize, ...] = (
    _size("A1 / 4-bar", _in(3.5, 4.875), "A1", _in(3.625, 5.125)),
    _size("A2", _in(4.25, 5.5), "A2", _in(4.375, 5.75)),
    _size("A6 (US)", _in(4.5, 6.25), "A6 (US)", _in(4.75, 6.5)),
    _size("A7", _in(5, 7), "A7", _in(5.25, 7.25)),
    _size("A9", _in(5.5, 8.5), "A9", _in(5.75, 8.75)),
    _size("No. 10 slim", _in(4, 9.25), "No. 10", _in(4.125, 9.5)),
    _size("5 in square", _in(5, 5), "5 1/4 in square", _in(5.25, 5.25)),
    _size("6 in square", _in(6, 6), "6 1/2 in square", _in(6.5, 6.5)),
    _size("ISO A7", [74, 105], "C7", [81, 114]),
    _size("ISO A6", [105, 148], "C6", [114, 162]),
    _size("ISO A5", [148, 210], "C5", [162, 229]),
    _size("DL", [99, 210], "DL", [110, 220]),
    _size("135 mm square", [135, 135], "140 mm square", [140, 140]),
    _size("150 mm square", [150, 150], "155 mm square", [155, 155]),
)


@dataclass(frozen=True)
class Room:
    """What is left in an envelope, in mm, in the better of the two orientations."""

    width: float
    height: float
    turned: bool

    @property
    def least(self) -> float:
        return min(self.width, self.height)


def room_in(envelope: Envelope, closed: tuple[float, float], bulk: float) -> Room:
    """Envelope less closed measure less bulk, each way; negative where it does not go in."""
    upright = Room(envelope.width - closed[0] - bulk, envelope.height - closed[1] - bulk, False)
    lying = Room(envelope.width - closed[1] - bulk, envelope.height - closed[0] - bulk, True)
    return max(upright, lying, key=lambda room: room.least)
