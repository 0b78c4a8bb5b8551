"""What the processes of jobs do. They know neither web nor database: all that they need is handed to them,
and what they find they hand back.
"""

from __future__ import annotations

import gc
import os
import resource
import signal
import time
from collections.abc import Callable
from contextlib import suppress
from multiprocessing.connection import Connection
from typing import Any

from stileblade.errors import StilebladeError
from stileblade.process_limits import address_space
from stileblade.unexpected import NOTHING_LOST, logger
from stileblade.words import speaking

MEMORY = 2_000_000_000
"""Bytes beyond what the libraries take."""
SECONDS = {"lay": 300, "files": 120, "passes": 60, "cut": 120}
"""Of processor time."""
TOLD_EVERY = 0.2
"""Seconds between two words of how a run goes on."""
NICENESS = 10
"""By so much a run gives way to what people wait for at the bench."""
Told = Callable[[float, str], bool]
"""Told the share done and what is done; False where it shall end with the best so far."""
Found = dict[str, Any]
"""``result`` as plain data, or ``content`` with ``name`` and ``media_type``, or both."""


def _stocks(asked: Found) -> tuple[Any, Any]:
    from stileblade.design.document import read_design
    from stileblade.design.evaluation import evaluate
    from stileblade.sheets.job import Card, JobOptions, stocks_of

    options = JobOptions.model_validate(asked["options"])
    cards = []
    for one in asked["designs"]:
        design = read_design(one["text"])
        pieces = tuple(one.get("pieces", ()))
        cards.append(Card(str(one["key"]), design.name, evaluate(design), one["count"], pieces))
    return stocks_of(cards, options), options


def _machine(asked: Found) -> Any:
    from stileblade.machine.machine import Machine

    return Machine.model_validate(asked["machine"])


def lay(asked: Found, sent: bytes, told: Told) -> Found:
    """The job's pieces on sheets."""
    from stileblade.geometry.measures.rows import shape_of
    from stileblade.geometry.paths.pathdata import region_from_path
    from stileblade.sheets.job import sheet_size
    from stileblade.sheets.kept import KeptJob, kept, placed_of
    from stileblade.sheets.laying import lay_job

    told(0.01, "designs")
    stocks, options = _stocks(asked)
    locked = {}
    if asked.get("kept"):
        locked = placed_of(KeptJob.model_validate(asked["kept"]), stocks, locked_only=True)
    taken: dict[int, list[list[Any]]] = {}
    for number, stock in enumerate(stocks):
        for offcut in asked.get("offcuts", ()):
            size = sheet_size(stock.paper, stock.keys, options.formats)
            own = offcut["width"], offcut["height"]
            if offcut["paper"] == stock.paper.name and sorted(own) == sorted(size):
                some = [shape_of(region_from_path(d)) for d in offcut["taken"]]
                taken.setdefault(number, []).append(some)
    laid = lay_job(
        asked["name"], stocks, options, _machine(asked), locked=locked, taken=taken, progress=told
    )
    found = kept(laid, stocks).model_copy(update={"designs": asked["revisions"]})
    return {"result": found.model_dump(mode="json")}


def _again(asked: Found) -> tuple[Any, Any]:
    from stileblade.sheets.kept import KeptJob, laid_again

    stocks, options = _stocks(asked)
    job = KeptJob.model_validate(asked["kept"])
    return laid_again(job, stocks, options, _machine(asked), asked["name"]), job


def files(asked: Found, sent: bytes, told: Told) -> Found:
    """All sheets' files, or those of one, with a contents page."""
    from dataclasses import replace

    from stileblade.formats.files import as_one
    from stileblade.formats.options import FileOptions
    from stileblade.sheets.files import contents_page, files_of_sheets

    told(0.05, "designs")
    laid, _ = _again(asked)
    number = asked.get("sheet")
    told(0.3, "files")
    options = FileOptions.model_validate({"page": asked["page"]})
    one = laid if number is None else replace(laid, sheets=(laid.sheets[number],))
    made = files_of_sheets(
        one, asked["format"], options, each_pass=asked["each_pass"], first=1 + (number or 0)
    )
    listed = [*(f for m in made for f in m.files)]
    if len(listed) > 1 or number is None:
        listed = [
            contents_page(asked["name"], one, made),
            *listed,
            *(f for m in made for f in m.meant),
        ]
    file = as_one(listed, f"{asked['name']}-sheets")
    return {"content": file.content, "name": file.name, "media_type": file.media_type}


def passes(asked: Found, sent: bytes, told: Told) -> Found:
    """The passes of a sheet, each stroke as it is run."""
    from stileblade.sheets.shown import passes_data

    laid, _ = _again(asked)
    return {"result": passes_data(laid.sheets[asked["sheet"]])}


def _against(asked: Found, sent: bytes) -> Any:
    """The sheet of a job that a file from elsewhere is compared with."""
    from stileblade.cutter.sent import language_of
    from stileblade.formats.format import formats

    laid, _ = _again(asked)
    number, inside = asked["against"]["sheet"], asked["against"]["inside"]
    sheet = laid.sheets[number]
    runs = sheet.plans[0].cut_runs if formats()[language_of(sent).name].runs else 1
    return sheet.meant(inside=inside, runs=runs)


def cut(asked: Found, sent: bytes, told: Told) -> Found:
    """A file sent to the cutter: one of the job's own sheets, or any."""
    from stileblade.cutter.turned_out import Conditions
    from stileblade.formats.options import FileOptions
    from stileblade.meant.sheet import MeantSheet, sheet_of_text
    from stileblade.meant.shown import cut_data
    from stileblade.sheets.files import files_of_sheets

    machine = _machine(asked)
    given = asked.get("meant")
    meant = MeantSheet.model_validate(given) if given else None
    name = asked.get("file_name", "")
    if not sent:
        from dataclasses import replace

        told(0.05, "the file")
        laid, _ = _again(asked)
        one = replace(laid, sheets=(laid.sheets[asked["sheet"]],))
        (made,) = files_of_sheets(one, asked["format"], FileOptions(), first=1 + asked["sheet"])
        inside = bool(asked.get("inside")) and len(made.files) > 1
        file, meant = made.files[int(inside)], made.wanted[int(inside)]
        sent, name = file.content, file.name
    elif asked.get("sheet_file"):
        meant = sheet_of_text(asked["sheet_file"], asked["sheet_file_name"])
    elif asked.get("against"):
        told(0.05, "the sheet")
        meant = _against(asked, sent)
    conditions = Conditions.model_validate(asked.get("conditions") or {})
    data = cut_data(
        sent, machine, meant, conditions, lambda share, what: told(0.15 + 0.85 * share, what)
    )
    kept = meant.model_dump(mode="json") if meant else None
    return {
        "result": {**data, "file": name, "meant": kept},
        "content": sent,
        "name": name,
        "media_type": "application/octet-stream",
    }


TASKS: dict[str, Callable[[Found, bytes, Told], Found]] = {
    "lay": lay,
    "files": files,
    "passes": passes,
    "cut": cut,
}


_FIRST_S = {"lay": 5.0, "files": 2.0, "passes": 1.0, "cut": 1.0}
_S_A_KB = 0.02
"""A file for the cutter has some 60 places a kB, of which 10,000 take a second or two."""
_WORN = 5.0
"""A worn blade makes many parts of each line."""


def estimated_s(task: str, asked: Found, sent_bytes: int) -> float:
    """Roughly what a run takes in seconds, from what is asked alone: only the order in which one's own runs begin
    depends on it."""
    cards = sum(one["count"] for one in asked.get("designs", ()))
    cost = _FIRST_S[task] + sent_bytes / 1000 * _S_A_KB + (0.2 * cards if task == "lay" else 0.0)
    return cost * (_WORN if (asked.get("conditions") or {}).get("worn") else 1.0)


def perform(task: str, asked: Found, sent: bytes, told: Told) -> Found:
    """The task's answer, or ``said`` and ``hint`` why there is none, in the language of who asked."""
    with speaking(asked.get("language", "")):
        try:
            return TASKS[task](asked, sent, told)
        except StilebladeError as error:
            return {"said": error.message, "hint": error.hint}
        except MemoryError:
            return {
                "said": "That takes more memory than is given to one run.",
                "hint": "Make it in several parts.",
            }
        except Exception:
            logger.exception("the task %s failed", task)
            return {"said": "Something went wrong here.", "hint": NOTHING_LOST}


def work(connection: Connection, task: str, asked: Found, sent: bytes) -> None:
    """Does one task in a process of its own, and ends."""
    signal.signal(signal.SIGINT, signal.SIG_IGN)
    signal.signal(signal.SIGTERM, signal.SIG_DFL)
    os.nice(NICENESS)
    gc.disable()
    most = address_space() + MEMORY
    resource.setrlimit(resource.RLIMIT_AS, (most, most))
    resource.setrlimit(resource.RLIMIT_CPU, (SECONDS[task], SECONDS[task] + 1))

    next_s = 0.0

    def told(share: float, said: str) -> bool:
        nonlocal next_s
        if time.monotonic() >= next_s:  # each is written to the database
            connection.send((share, said))
            next_s = time.monotonic() + TOLD_EVERY
        return not connection.poll()

    with suppress(OSError):  # nobody may be there any more
        connection.send(perform(task, asked, sent, told))
