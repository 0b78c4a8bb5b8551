"""The machine that a file is for."""

from __future__ import annotations

from stileblade.formats.options import FileOptions
from stileblade.formats.plan import Plan
from stileblade.machine.machine import Machine, machine_of


def chosen_machine(plan: Plan, options: FileOptions) -> Machine:
    """The plan's own, or that of the options."""
    return plan.machine or machine_of(options.machine)
