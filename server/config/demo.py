"""The demo scenario: the cards of a small harbour museum's shop, for the demo designer."""

from __future__ import annotations

import json
from pathlib import PurePath

from django.conf import settings
from django.contrib.auth.models import User
from django.db import transaction

from server.accounts.people import demo_user
from server.designs import actions
from server.designs.models import Design
from server.designs.summary import with_summaries
from server.jobs.actions import JobDesign
from server.jobs.actions import create as create_job
from server.shelf.actions import papers_of
from server.shelf.artworks import keep
from stileblade.design.document import load_design
from stileblade.outlines.artwork import Artwork


def load_demo() -> int:
    """The demo designs and their outlines, if there are none yet; how many were loaded."""
    user = demo_user()
    papers_of(user)
    if Design.objects.filter(owner=user).exists():
        return 0
    with (
        transaction.atomic()
    ):  # all or none: whoever ends it half way gets the rest at the next start
        made = _load(user)
    with_summaries(made)  # or whoever opens the list first waits for them all
    return len(made)


def _load(user: User) -> list[Design]:
    folder = settings.BASE_DIR / "demo"
    kept: set[str] = set()
    made = []
    for path in sorted((folder / "shelf").glob("*.json")):
        given = json.loads(path.read_text())
        artwork = Artwork.model_validate(given["artwork"])
        kept.add(keep(user, artwork, tags=given["tags"], source=given["source"]).key)
    paths = sorted((folder / "designs").glob("*.json"), reverse=True)
    numbers: dict[str, int] = {}
    for path in paths:
        data = json.loads(path.read_text())
        made.append(actions.create(user, data))
        numbers[path.name] = made[-1].pk
        for key, artwork in load_design(data).artworks.items():
            if key not in kept:
                keep(user, artwork)
                kept.add(key)
    for path in sorted((folder / "jobs").glob("*.json")):
        job = json.loads(path.read_text())
        designs = [
            JobDesign(design=numbers[PurePath(one["file"]).name], count=one["count"])
            for one in job["designs"]
        ]
        create_job(user, job["name"], designs)
    return made
