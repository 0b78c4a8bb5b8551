"""How much of the server one person may use: rows of each kind, and bytes in all.

A model says its own quota as ``quota``; every model whose rows belong to a person has one. They are checked before
a row is saved, from any caller.
"""

from __future__ import annotations

import threading
import time
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Any

from django.apps import apps
from django.conf import settings
from django.contrib.auth.models import User
from django.db.models import Model, QuerySet, Sum
from django.db.models.functions import Coalesce, Length
from django.db.models.signals import pre_save
from django.dispatch import receiver
from pydantic import BaseModel

from stileblade.errors import StilebladeError
from stileblade.words import say

NEARLY = 0.9
"""The share of a quota from which on a person is told."""
_FRESH = 60.0
"""Seconds for which a sum of bytes is good; what is saved here meanwhile is added to it."""
_AGAIN = 2.0
"""Seconds after which it is taken anew before something is refused."""


@dataclass(frozen=True)
class Quota:
    """Of one model: ``most`` rows for each person (None: bounded otherwise), and the fields whose bytes count.

    ``name`` is what the rows are called, ``full`` what is said where no more can be made. ``owner`` is the path
    from a row to the person.
    """

    name: str
    most: int | None = None
    full: str = ""
    content: tuple[str, ...] = ()
    owner: str = "owner_id"


class QuotaExceeded(StilebladeError):
    code = "quota"


class Use(BaseModel):
    """Of one quota: how much of it is used. ``name`` "bytes" is that of all content."""

    name: str
    used: int
    most: int


def quotas() -> Iterator[tuple[type[Model], Quota]]:
    for model in apps.get_models():
        if isinstance(quota := getattr(model, "quota", None), Quota):
            yield model, quota


def use_of(user: User) -> list[Use]:
    """How much of each quota a person uses, the bytes first."""
    found = [Use(name="bytes", used=LEDGER.used(user.pk), most=settings.QUOTA_BYTES)]
    for model, quota in quotas():
        if quota.most is not None:
            found.append(Use(name=quota.name, used=_count(model, quota, user.pk), most=quota.most))
    return found


def _count(model: type[Model], quota: Quota, person: int) -> int:
    return int(model._default_manager.filter(**{quota.owner: person}).count())


def stored_bytes(person: int) -> int:
    """What a person's rows hold, as SQLite counts it: characters of texts, bytes of files."""
    total = 0
    for model, quota in quotas():
        total += _held(model._default_manager.filter(**{quota.owner: person}), quota.content)
    return total


def _held(rows: QuerySet[Any], content: Sequence[str]) -> int:
    """What these fields of the rows hold."""
    sums = {f"n_{name}": Coalesce(Sum(Length(name)), 0) for name in content}
    return int(sum(rows.aggregate(**sums).values()))


class Ledger:
    """Sums of bytes by person, taken anew once a minute."""

    def __init__(self) -> None:
        self._known: dict[int, tuple[float, int]] = {}
        self._guard = threading.Lock()

    def used(self, person: int, *, no_older_than: float = _FRESH) -> int:
        now = time.monotonic()
        with self._guard:
            at, used = self._known.get(person, (0.0, -1))
        if used < 0 or now - at > no_older_than:
            used = stored_bytes(person)
            with self._guard:
                self._known[person] = now, used
        return used

    def add(self, person: int, count: int) -> None:
        """Bytes that are about to be saved. QuotaExceeded where there is no room for them."""
        most = settings.QUOTA_BYTES
        if (
            count > 0
            and self.used(person) + count > most
            and self.used(person, no_older_than=_AGAIN) + count > most
        ):
            raise QuotaExceeded(
                say("Your {most} MB on this server are full.", most=round(most / 1e6)),
                hint="Delete designs, artworks or jobs for good that you need no more; the bin counts, too.",
            )
        used = self.used(person)
        with self._guard:
            self._known[person] = self._known[person][0], used + count

    def forget(self) -> None:
        with self._guard:
            self._known.clear()


LEDGER = Ledger()


@receiver(pre_save)
def check_quota(sender: type[Model], instance: Any, update_fields: Any = None, **_: Any) -> None:
    """Raise QuotaExceeded where a row, or what it holds, is more than its owner may have."""
    quota = getattr(sender, "quota", None)
    if not isinstance(quota, Quota):
        return
    person = instance
    for name in quota.owner.split("__"):
        person = getattr(person, name)
    most = quota.most if instance._state.adding else None
    if most is not None and _count(sender, quota, person) >= most:
        raise QuotaExceeded(
            say(quota.full, most=most),
            hint="Delete some for good that you need no more; the bin counts, too.",
        )
    written = [n for n in quota.content if update_fields is None or n in update_fields]
    if written:
        count = sum(_size(getattr(instance, name)) for name in written)
        if not instance._state.adding:
            count -= _held(sender._default_manager.filter(pk=instance.pk), written)
        LEDGER.add(person, count)


def _size(value: Any) -> int:
    """About how many bytes a value takes; of lists and objects as JSON."""
    if isinstance(value, str | bytes | memoryview):
        return len(value)
    if isinstance(value, dict):
        return 2 + sum(_size(k) + _size(v) + 6 for k, v in value.items())
    if isinstance(value, list):
        return 2 + sum(_size(v) + 2 for v in value)
    return 8
