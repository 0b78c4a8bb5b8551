"""The core from the command line: schema, evaluate, check, picture, sheets, cut, export.

JSON goes to standard output, errors to standard error with exit status 2. What a command
does not need it does not import.
"""

from __future__ import annotations

import argparse
import gc
import json
import os
import sys
from collections.abc import Callable
from pathlib import Path
from typing import TYPE_CHECKING, Any

from stileblade.errors import DocumentError, StilebladeError

if TYPE_CHECKING:
    from stileblade.design.evaluation import Evaluation
    from stileblade.formats.options import FileOptions

LARGEST_FILE = 40_000_000


def load(path: Path) -> Evaluation:
    """The evaluation of the design in a file."""
    from stileblade.design.document import read_design
    from stileblade.design.evaluation import evaluate

    try:
        if path.stat().st_size > LARGEST_FILE:
            raise DocumentError(f"{path}: larger than {LARGEST_FILE // 1_000_000} MB.")
        text = path.read_bytes()
    except OSError as error:
        raise DocumentError(f"{path}: {error.strerror or error}.") from error
    return evaluate(read_design(text))


def _print(data: Any) -> None:
    print(json.dumps(data, indent=1, ensure_ascii=False))


def schema(arguments: argparse.Namespace) -> int:
    """the JSON Schema of design documents"""
    from stileblade.views.schema import schema as made

    _print(made())
    return 0


def evaluated(arguments: argparse.Namespace) -> int:
    """sizes, outlines, folds and findings"""
    from stileblade.views.report import report

    _print(report(load(arguments.file)))
    return 0


def check(arguments: argparse.Namespace) -> int:
    """the findings; exit status 1 if one is an error that nobody accepted"""
    from stileblade.checks.check import Severity, run_checks
    from stileblade.views.report import finding_data

    findings = run_checks(load(arguments.file))
    _print([finding_data(f) for f in findings])
    return int(any(f.severity is Severity.ERROR and not f.accepted for f in findings))


def _options(
    arguments: argparse.Namespace, first: dict[str, str], *, of_job: frozenset[str] = frozenset()
) -> FileOptions:
    """The choices about files, over the first ones. DocumentError where the format has no such choice."""
    from stileblade.formats.options import FileOptions, options_of

    values = dict(text.partition("=")[::2] for text in arguments.option)
    known = [name for name in options_of(arguments.format) if name not in of_job]
    unknown = [name for name in values if name not in known]
    if unknown:
        raise DocumentError(
            f"--option {unknown[0][:40]}: files of the format {arguments.format} have no such option.",
            hint=f"They have: {', '.join(known)}.",
        )
    try:
        return FileOptions.model_validate(first | values)
    except ValueError as error:
        raise DocumentError(f"--option: {' '.join(str(error).split())[:200]}") from error


def export(arguments: argparse.Namespace) -> int:
    """files to cut from"""
    from stileblade.formats.files import files_of, save
    from stileblade.formats.options import Which
    from stileblade.views.findings import standing

    options = _options(arguments, {"which": Which.EACH.value})
    evaluation = load(arguments.file)
    files = files_of(evaluation, arguments.format, options, findings=standing(evaluation))
    try:
        _print([str(p) for p in save(files, arguments.out)])
    except OSError as error:
        raise DocumentError(f"{error.filename}: {error.strerror}.") from error
    return 0


def picture(arguments: argparse.Namespace) -> int:
    """a picture of the whole card"""
    from stileblade.views.picture import Pose, png_of, whole_picture

    try:
        pose = Pose(arguments.pose)
    except ValueError:
        poses = ", ".join(Pose)
        raise DocumentError(f"--pose {arguments.pose[:40]!r} is none of {poses}.") from None
    content = png_of(whole_picture(load(arguments.file), pose, inside=arguments.inside))
    try:
        arguments.out.write_bytes(content)
    except OSError as error:
        raise DocumentError(f"{arguments.out}: {error.strerror or error}.") from error
    _print([str(arguments.out)])
    return 0


_OF_JOB = frozenset({"which", "inside", "ticks", "machine"})


def sheets(arguments: argparse.Namespace) -> int:
    """the pieces of a job laid out on sheets, and files of those"""
    from stileblade.formats.files import save
    from stileblade.machine.machine import machine_of
    from stileblade.sheets.files import files_of_sheets
    from stileblade.sheets.job import read_job, stocks_of
    from stileblade.sheets.laying import lay_job
    from stileblade.sheets.report import job_data

    machine = machine_of(arguments.machine)
    job, cards = read_job(arguments.file)
    laid = lay_job(job.name, stocks_of(cards, job), job, machine)
    # which pieces, how they are scored and on which machine, the job itself says
    options = _options(arguments, {"page": "own"}, of_job=_OF_JOB)
    made = files_of_sheets(laid, arguments.format, options, each_pass=arguments.each_pass)
    printed = job_data(laid)
    try:
        for one, data in zip(made, printed["sheets"], strict=True):
            data["files"] = [str(path) for path in save(one.files, arguments.out)]
            data["meant"] = str(next(iter(save(one.meant, arguments.out))))
    except OSError as error:
        raise DocumentError(f"{error.filename}: {error.strerror}.") from error
    _print(printed)
    return 0


def cut(arguments: argparse.Namespace) -> int:
    """what comes loose of a file that is sent to a machine; exit status 1 for a fault, 2 for what it refuses"""
    from stileblade.cutter.sent import Fault
    from stileblade.cutter.turned_out import Conditions
    from stileblade.machine.machine import machine_of
    from stileblade.meant.sheet import read_meant
    from stileblade.meant.shown import cut_report

    machine = machine_of(arguments.machine)
    try:
        content = arguments.file.read_bytes()
    except OSError as error:
        raise DocumentError(f"{arguments.file}: {error.strerror or error}.") from error
    meant = read_meant(arguments.meant) if arguments.meant else None
    values = {name: getattr(arguments, name) for name in Conditions.model_fields}
    try:
        conditions = Conditions.model_validate(values)
    except ValueError as error:
        raise DocumentError(f"cut: {' '.join(str(error).split())[:200]}") from error
    data, _ = cut_report(content, machine, meant, conditions)
    _print(data)
    if any(fault["code"] == Fault.REFUSED for fault in data["faults"]):
        return 2
    return int(bool(data["faults"]))


_CONDITIONS = (
    ("askew_deg", float, "the sheet is put in askew by so many degrees"),
    ("stretch", float, "the paper stretches by a share, such as 0.002"),
    ("worn", float, "the blade fails to cut for so many mm in 50"),
    ("trail", float, "the blade's tip trails by so many mm, not made up for"),
    ("seed", int, "of what happens by chance"),
)

COMMANDS: dict[str, Callable[[argparse.Namespace], int]] = {
    "schema": schema,
    "evaluate": evaluated,
    "check": check,
    "picture": picture,
    "sheets": sheets,
    "cut": cut,
    "export": export,
}


def main(arguments: list[str] | None = None) -> int:
    parser = argparse.ArgumentParser(prog="python -m stileblade", description=__doc__)
    commands = parser.add_subparsers(dest="command", required=True)
    for name, run in COMMANDS.items():
        command = commands.add_parser(name, help=run.__doc__)
        if run is not schema:
            command.add_argument("file", type=Path)
        if run in (sheets, cut):
            command.add_argument(
                "--machine", default="plotter", help="plotter, flatbed, or a machine's .json file"
            )
        if run is sheets:
            command.add_argument("--format", default="svg", help="svg, dxf, pdf, hpgl or gcode")
            command.add_argument("--out", required=True, type=Path, help="the folder to write to")
            command.add_argument("--each-pass", action="store_true", help="a file for each pass")
        if run is cut:
            command.add_argument("--meant", type=Path, help="the sheet that it is to become")
            for name, kind, about in _CONDITIONS:
                flag = f"--{name.removesuffix('_deg')}"
                command.add_argument(flag, dest=name, type=kind, default=kind(), help=about)
        if run is picture:
            command.add_argument(
                "--pose", default="half-open", help="half-open, closed, assembled or apart"
            )
            command.add_argument("--out", required=True, type=Path, help="the PNG to write")
            command.add_argument("--inside", action="store_true", help="assembled, from inside")
        if run in (sheets, export):
            command.add_argument(
                "--option", action="append", default=[], metavar="NAME=VALUE",
                help="a choice about the files, such as page=a3 or curves=splines",
            )  # fmt: skip
    command.add_argument("--format", required=True, help="its ending, such as svg")
    command.add_argument("--out", required=True, type=Path, help="the folder to write to")
    chosen = parser.parse_args(arguments)
    try:
        return COMMANDS[chosen.command](chosen)
    except StilebladeError as error:
        print(f"{error.code}: {error}", file=sys.stderr)
        return 2


if __name__ == "__main__":
    gc.disable()  # one short run: there is nothing to collect
    # no package of the surroundings takes part in reading values: none is looked for
    os.environ.setdefault("PYDANTIC_DISABLE_PLUGINS", "__all__")
    sys.exit(main())
