"""Writes all of a person's work as files: manage.py export_work NAME FOLDER

Designs as design files, as they are read by "Open a file" and by the command line; artworks, jobs with their designs'
numbers and their layouts, papers, own sizes, machines and offcuts as JSON. What is in the bin goes into a folder of its own.
"""

from __future__ import annotations

import json
from argparse import ArgumentParser
from pathlib import Path
from typing import Any

from django.contrib.auth.models import User
from django.core.management.base import BaseCommand, CommandError

from server.designs.models import Design
from server.jobs.models import Job, Offcut, OwnMachine
from server.shelf.models import Artwork, OwnSize, StockPaper
from stileblade.formats.files import file_name

_OF_JOB = ("name", "designs", "options", "machine", "offcuts", "layout")
_OF_OFFCUT = ("name", "paper", "width", "height", "taken")


class Command(BaseCommand):
    help = __doc__ or ""

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("name")
        parser.add_argument("folder", type=Path)

    def handle(self, *args: Any, **options: Any) -> None:
        folder: Path = options["folder"]
        try:
            user = User.objects.get(username=options["name"])
        except User.DoesNotExist:
            raise CommandError(
                f"There is nobody called {options['name']!r}.", returncode=2
            ) from None
        if folder.exists() and any(folder.iterdir()):
            raise CommandError(f"{folder} is not empty. Name a new folder.", returncode=2)
        written = 0
        for design in Design.objects.filter(owner=user):
            place = folder / ("designs in the bin" if design.binned else "designs")
            _write(place / f"{file_name(design.name)}-{design.pk}.json", design.document)
            written += 1
        for artwork in Artwork.objects.filter(owner=user):
            place = folder / ("artworks in the bin" if artwork.binned else "artworks")
            _write(place / f"{file_name(artwork.name)}-{artwork.pk}.json", json.dumps(artwork.data))
            written += 1
        for job in Job.objects.filter(owner=user):
            kept = {name: getattr(job, name) for name in _OF_JOB}
            _write(folder / "jobs" / f"{file_name(job.name)}-{job.pk}.json", json.dumps(kept))
            written += 1
        for name, rows in (
            ("papers", StockPaper.objects.filter(owner=user)),
            ("sizes", OwnSize.objects.filter(owner=user)),
            ("machines", OwnMachine.objects.filter(owner=user)),
        ):
            _write(folder / f"{name}.json", json.dumps([row.data for row in rows]))
        offcuts = Offcut.objects.filter(owner=user)
        _write(
            folder / "offcuts.json",
            json.dumps([{n: getattr(o, n) for n in _OF_OFFCUT} for o in offcuts]),
        )
        self.stdout.write(
            f"{written} designs, artworks and jobs, with papers, sizes, machines and offcuts, are in {folder}"
        )


def _write(path: Path, text: str) -> None:
    path.parent.mkdir(parents=True, exist_ok=True)
    path.write_text(text, encoding="utf-8")
