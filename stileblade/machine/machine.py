"""A machine's description, as it is kept on the shelf: bed, edge, tools, speeds, lift, trail.

Lengths in mm, speeds in mm/s, times in seconds. The sheet lies with its near left corner at the
machine's origin, x to the right, y away from the person.
"""

from __future__ import annotations

from enum import StrEnum
from pathlib import Path

from pydantic import Field, ValidationError, model_validator

from stileblade.errors import DocumentError
from stileblade.fields import Values, choice, length, number_of
from stileblade.machine.operation import THROUGH, WORDS, Operation
from stileblade.words import say

MOST_BYTES = 100_000


class Lifting(StrEnum):
    HEIGHT = "height"
    SWITCH = "switch"


class Tool(Values):
    """What stands in a holder, by its number in files."""

    number: int = number_of(1, "Number", "By which files call it.", least=1, most=99)
    name: str = Field("knife", title="Name", description="What it is called.", max_length=40)
    does: tuple[Operation, ...] = Field(
        (), title="Does", description="The operations that are done with it.", max_length=6
    )
    speed: float = Field(
        20, title="Speed", description="With the tool down.", gt=0, le=2000,
        json_schema_extra={"unit": "mm/s"},
    )  # fmt: skip
    trail: float = length(
        0, "Trail", "How far its tip lies behind its axis, as a drag knife's does.", least=0, most=5
    )

    @property
    def cuts(self) -> bool:
        """Whether it goes through the paper."""
        return any(operation in THROUGH for operation in self.does)


class Machine(Values):
    """A device that moves one tool at a time over a sheet."""

    name: str = Field("machine", title="Key", description="By which it is chosen.", max_length=40)
    title: str = Field("Machine", title="Name", description="What it is called.", max_length=60)
    bed_width: float = length(
        310, "Bed width", "Across, as far as it reaches.", least=20, most=5000
    )
    bed_height: float = length(620, "Bed length", "Away from the person.", least=20, most=5000)
    edge: float = length(
        5, "Edge", "Of each side of a sheet, where it cannot reach.", least=0, most=100
    )
    tools: tuple[Tool, ...] = Field(
        title="Tools", description="One for each operation at most.", min_length=1, max_length=12
    )
    travel: float = Field(
        120, title="Travel", description="Speed with the tool up.", gt=0, le=5000,
        json_schema_extra={"unit": "mm/s"},
    )  # fmt: skip
    lift_s: float = Field(
        0.15, title="Lift", description="Time to lift a tool and set it down again.", ge=0, le=60,
        json_schema_extra={"unit": "s"},
    )  # fmt: skip
    change_s: float = Field(
        20, title="Change", description="Time to change from one tool to another.", ge=0, le=3600,
        json_schema_extra={"unit": "s"},
    )  # fmt: skip
    lifting: Lifting = choice(
        Lifting.HEIGHT, "Lifted", "How G-code lifts and lowers the tool.",
        height="by the height Z", switch="by M5 and M3",
    )  # fmt: skip
    up: float = length(3, "Height up", "Z with the tool lifted.", least=-100, most=100)
    down: float = length(-0.5, "Height down", "Z with the tool set down.", least=-100, most=100)
    overlap: float = length(
        0.3, "Overlap", "A closed cut runs on over its start by so much.", least=0, most=2
    )

    @model_validator(mode="after")
    def _one_tool_each(self) -> Machine:
        numbers = [tool.number for tool in self.tools]
        if len(set(numbers)) < len(numbers):
            raise ValueError("two tools have the same number: give each its own")
        done = [operation for tool in self.tools for operation in tool.does]
        twice = sorted({str(o) for o in done if done.count(o) > 1})
        if twice:
            raise ValueError(f"{twice[0]!r} is done by two tools: leave it to one of them")
        if self.lifting is Lifting.HEIGHT and self.down >= self.up:
            raise ValueError(f"down={self.down:g} is not below up={self.up:g}")
        return self

    def has_room(self, width: float, height: float) -> bool:
        """Whether a sheet of this size in mm lies on its bed."""
        return width <= self.bed_width + 1e-6 and height <= self.bed_height + 1e-6

    def tool_for(self, operation: Operation) -> Tool:
        """The tool of an operation. DocumentError where it has none."""
        for tool in self.tools:
            if operation in tool.does:
                return tool
        raise DocumentError(
            say(
                "The machine {title!r} has no tool for {words}.",
                title=self.title,
                words=WORDS[operation],
            ),
            hint="Choose another machine, or give one of its tools that operation.",
        )

    def tool(self, number: int) -> Tool | None:
        """The tool of that number; None where it has none."""
        return next((tool for tool in self.tools if tool.number == number), None)


def read_machine(content: str | bytes, *, name: str = "machine") -> Machine:
    """A machine from its JSON. DocumentError says which value is wrong."""
    if len(content) > MOST_BYTES:
        raise DocumentError(
            say(
                "{name}: larger than {most_bytes} kB is no machine.",
                name=name,
                most_bytes=MOST_BYTES // 1000,
            )
        )
    try:
        return Machine.model_validate_json(content)
    except ValidationError as error:
        first = error.errors()[0]
        place = ".".join(str(p) for p in first["loc"]) or "machine"
        raise DocumentError(f"{name}: {place}: {first['msg']}.") from error


def machine_of(name: str) -> Machine:
    """One of those that come with the application by its name, or that of a JSON file."""
    from stileblade.machine.shipped import MACHINES

    known = {machine.name: machine for machine in MACHINES}
    if name in known:
        return known[name]
    path = Path(name)
    if path.suffix == ".json":
        try:
            return read_machine(path.read_bytes(), name=path.name)
        except OSError as error:
            raise DocumentError(f"{path}: {error.strerror or error}.") from error
    raise DocumentError(
        say("--machine {name!r} is none of {list}.", name=name[:40], list=", ".join(known)),
        hint="A machine of your own is named by its file, which ends in .json.",
    )
