"""Which earlier versions of a design are kept: thinly, but those that a person has named for ever.

Of the last day all, of the last thirty days the last of each hour, of the time before the last of each day.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from datetime import datetime, timedelta

from django.utils import timezone

from server.designs.models import Design, Revision

DAY, MONTH = timedelta(days=1), timedelta(days=30)
MOST_OF_A_DAY = 500
"""As many of the last day; beyond that the last of each minute."""
MOST_REFUSED = 40
OFTEN = 10


def thin_history(design: Design) -> None:
    """Delete versions and refused ones beyond those that are kept. Called after every save, outside its
    transaction; it looks through the history only where ``OFTEN`` more have come."""
    refused = design.revisions.filter(conflicting=True)
    if design.revision % OFTEN and refused.count() < MOST_REFUSED + OFTEN:
        return
    rows = design.revisions.filter(conflicting=False, name="").values_list("pk", "saved")
    gone = list(thinned(list(rows), timezone.now()))
    gone += list(refused.values_list("pk", flat=True)[MOST_REFUSED:])
    if gone:
        Revision.objects.filter(pk__in=gone).delete()


def thinned(rows: Sequence[tuple[int, datetime]], now: datetime) -> Iterator[int]:
    """Of versions by key and time, the newest first, the keys of those that are not kept."""
    seen: set[str] = set()
    for place, (key, saved) in enumerate(rows):
        age = now - saved
        if age < DAY:
            if place < MOST_OF_A_DAY:
                continue
            span = saved.strftime("%Y-%m-%d %H:%M")
        else:
            span = saved.strftime("%Y-%m-%d %H" if age < MONTH else "%Y-%m-%d")
        if span in seen:
            yield key
        seen.add(span)
