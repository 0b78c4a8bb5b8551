"""Machines: those that come with the application, and bad descriptions."""

from __future__ import annotations

from pathlib import Path

import pytest

from stileblade.errors import DocumentError
from stileblade.formats.options import MachineName
from stileblade.machine.machine import Machine, machine_of, read_machine
from stileblade.machine.operation import Operation
from stileblade.machine.shipped import FLATBED, MACHINES, PLOTTER


@pytest.mark.parametrize("machine", MACHINES)
def test_each_has_a_tool_for_every_operation(machine: Machine) -> None:
    assert {machine.tool_for(operation).name for operation in Operation} >= {"knife", "pen"}
    assert read_machine(machine.model_dump_json()) == machine


def test_files_are_offered_for_each() -> None:
    assert [name.value for name in MachineName] == [machine.name for machine in MACHINES]


def test_one_of_ones_own_is_named_by_its_file(tmp_path: Path) -> None:
    path = tmp_path / "mine.json"
    path.write_text(PLOTTER.model_copy(update={"bed_width": 500}).model_dump_json())
    assert machine_of(str(path)).bed_width == 500
    assert machine_of("flatbed") is FLATBED


def test_what_is_wrong_with_one_is_said(tmp_path: Path) -> None:
    with pytest.raises(DocumentError) as error:
        machine_of("press")
    assert str(error.value) == (
        "--machine 'press' is none of plotter, flatbed. A machine of your own is named by its file, "
        "which ends in .json."
    )
    knife = PLOTTER.tools[-1].model_dump(mode="json")
    two = PLOTTER.model_dump(mode="json") | {"tools": [knife, knife | {"number": 7}]}
    with pytest.raises(DocumentError, match="'cut-inner' is done by two tools: leave it to one"):
        read_machine(Machine.model_construct(**two).model_dump_json(warnings=False))
    low = PLOTTER.model_copy(update={"lifting": "height", "up": -1.0, "down": 0.0})
    with pytest.raises(DocumentError, match="down=0 is not below up=-1"):
        read_machine(low.model_dump_json(warnings=False))
    pen = PLOTTER.model_copy(update={"tools": PLOTTER.tools[1:2]})
    with pytest.raises(DocumentError, match="has no tool for outer cuts"):
        pen.tool_for(Operation.CUT_OUTER)
