"""Summaries of designs for their list, kept until a newer revision.

Where the server runs, a thread has them made one after the other, so that a list is never waited for
longer than ``PATIENCE``: what is not there yet follows.
"""

from __future__ import annotations

import json
import threading
import time
from collections.abc import Sequence
from typing import Any

from django.db import close_old_connections
from django.db.models import Func, JSONField, QuerySet, Value

from server.computing.asking import computed
from server.computing.jobs import Answer
from server.computing.worker import Problem
from server.designs.models import Design, Revision
from stileblade.unexpected import logger
from stileblade.views.summary import Summary, unseen
from stileblade.words import speaking

PATIENCE = 1.0


def is_there(design: Design) -> bool:
    """Whether the summary is of what the design is now, and has all that summaries have."""
    current = design.summary_revision == design.revision
    return current and design.summary.keys() >= Summary.model_fields.keys()


def make(design: Design) -> bool:
    """Makes and keeps the design's summary; whether it could be tried. One that cannot be computed says
    so, and is not tried again before the next revision."""
    done = _computed(design.document, design.owner_id)
    if isinstance(done, Answer):
        summary = json.loads(done.content)
    elif done.status == 422:
        summary = unseen(done.message, done.hint).model_dump(mode="json")
    else:
        return False
    design.summary, design.summary_revision = summary, design.revision
    # not save(): looking at a list does not make a design newer
    Design.objects.filter(pk=design.pk, revision=design.revision).update(
        summary=summary, summary_revision=design.revision
    )
    return True


def _computed(document: str, owner: int) -> Answer | Problem:
    """In English: it is kept, and said in the language of whoever looks at it then."""
    with speaking("en"):
        return computed("summary", document, person=f"summaries of {owner}")


def summary_of_version(row: Revision) -> dict[str, Any]:
    """The summary of a version, made where it is not there."""
    if not row.summary.keys() >= Summary.model_fields.keys():
        done = _computed(row.document, row.design.owner_id)
        if not isinstance(done, Answer):
            return unseen(done.message, done.hint).model_dump(mode="json")
        row.summary = json.loads(done.content)
        row.save(update_fields=["summary"])
    return row.summary


def summary_of(design: Design) -> dict[str, Any]:
    """The design's summary; empty while it is being made."""
    return design.summary if is_there(design) else unseen("").model_dump(mode="json")


def without_pictures(rows: QuerySet[Design], first: int) -> list[Design]:
    """The designs from that place on, whose summaries are read without their pictures: these are most of
    what a list of hundreds weighs."""
    short = Func("summary", Value("$.picture"), function="JSON_REMOVE", output_field=JSONField())
    found: list[Design] = list(rows.defer("document", "summary").annotate(short=short)[first:])
    for design in found:
        kept: dict[str, Any] = vars(design)["short"]
        design.summary = {**kept, "picture": None} if kept else {}
    return found


class Maker(threading.Thread):
    """Makes summaries that were asked for."""

    def __init__(self) -> None:
        super().__init__(name="summaries", daemon=True)
        self._asked: dict[int, None] = {}
        self._changed = threading.Condition()
        self._ended = False

    def wanted(self, numbers: Sequence[int], patience: float) -> None:
        """Asks for them and waits a while."""
        until = time.monotonic() + patience
        with self._changed:
            self._asked.update(dict.fromkeys(numbers))
            self._changed.notify_all()
            while self._asked.keys() & set(numbers) and time.monotonic() < until:
                self._changed.wait(0.05)

    def run(self) -> None:
        while True:
            with self._changed:
                while not self._asked and not self._ended:
                    self._changed.wait()
                if self._ended:
                    return
                number = next(iter(self._asked))
            try:
                close_old_connections()
                design = Design.objects.filter(pk=number).first()
                tried = design is None or is_there(design) or make(design)
            except Exception:
                logger.exception("the summary of design %s could not be kept", number)
                tried = False
            if not tried:
                time.sleep(0.5)
            with self._changed:
                self._asked.pop(number, None)
                self._changed.notify_all()

    def end(self) -> None:
        with self._changed:
            self._ended = True
            self._changed.notify_all()
        self.join(timeout=5)


_maker: Maker | None = None


def start_maker() -> Maker:
    global _maker
    _maker = Maker()
    _maker.start()
    return _maker


def with_summaries(designs: list[Design]) -> list[Design]:
    """The designs with their summaries, but for those that take longer than a list may."""
    missing = [d for d in designs if not is_there(d)]
    if not missing:
        return designs
    if _maker is None:
        for design in missing:
            make(design)
        return designs
    _maker.wanted([d.pk for d in missing], PATIENCE)
    made = Design.objects.in_bulk([d.pk for d in missing])
    return [made.get(d.pk, d) for d in designs]
