"""Jobs, what was laid out of them, and runs: what processes of their own are asked to do."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.db import models

from server.accounts.quotas import Quota


class Job(models.Model):
    """Designs and how many cards of each; ``layout`` is empty until it is laid out."""

    owner = models.ForeignKey(User, on_delete=models.CASCADE, related_name="jobs")
    name = models.CharField(max_length=120)
    designs = models.JSONField(default=list)
    """Of each design its number and ``CardsWanted``."""
    options = models.JSONField(default=dict)
    machine = models.CharField(max_length=40, default="plotter")
    layout = models.JSONField(default=dict)
    laid_from = models.JSONField(default=dict)
    """Designs, options and machine of which the layout was made."""
    before = models.JSONField(default=dict)
    """``layout`` and ``laid_from`` before the newest layout, so that it can be given up for them."""
    offcuts = models.JSONField(default=list)
    """Numbers of offcuts that are used up first."""
    revision = models.PositiveIntegerField(default=1)
    """Raised by every change of what lies where."""
    created = models.DateTimeField(auto_now_add=True)
    modified = models.DateTimeField(auto_now=True)
    quota = Quota(
        "jobs",
        1_000,
        "You have {most} jobs, the most that one person can keep here.",
        content=("layout", "before"),
    )

    class Meta:
        ordering = ["-modified", "-id"]

    def remember(self) -> None:
        """Keeps the layout as the one before; a layout of which nobody knows what it was made of is not kept."""
        known = self.layout and self.laid_from
        self.before = {"layout": self.layout, "laid_from": self.laid_from} if known else {}


class Run(models.Model):
    """Something that takes a while. What was asked is kept, so that a run which was broken off by an end
    of the server is begun again when somebody looks at it."""

    class State(models.TextChoices):
        WAITING = "waiting"
        RUNNING = "running"
        DONE = "done"
        FAILED = "failed"
        REPLACED = "replaced"

    owner = models.ForeignKey(User, on_delete=models.CASCADE, related_name="runs")
    job = models.ForeignKey(Job, on_delete=models.CASCADE, null=True, related_name="runs")
    task = models.CharField(max_length=20)
    asked = models.JSONField(default=dict)
    sent = models.BinaryField(default=bytes)
    """A file that was sent, byte for byte."""
    state = models.CharField(max_length=10, choices=State.choices, default=State.WAITING)
    share = models.FloatField(default=0.0)
    said = models.CharField(max_length=300, default="")
    hint = models.CharField(max_length=300, default="")
    result = models.JSONField(default=dict)
    content = models.BinaryField(default=bytes)
    content_name = models.CharField(max_length=200, default="")
    media_type = models.CharField(max_length=80, default="")
    begun = models.PositiveIntegerField(default=0)
    """How often it was begun."""
    created = models.DateTimeField(auto_now_add=True)
    quota = Quota("runs", content=("asked", "sent", "result", "content"))

    class Meta:
        ordering = ["-id"]


class Offcut(models.Model):
    """What is left of a sheet: its size, and what of it is used, as path data."""

    owner = models.ForeignKey(User, on_delete=models.CASCADE, related_name="offcuts")
    name = models.CharField(max_length=120)
    paper = models.CharField(max_length=60)
    width = models.FloatField()
    height = models.FloatField()
    taken = models.JSONField(default=list)
    created = models.DateTimeField(auto_now_add=True)
    quota = Quota(
        "offcuts",
        2_000,
        "You have {most} offcuts, the most that one person can keep here.",
        content=("taken",),
    )

    class Meta:
        ordering = ["paper", "-id"]


class OwnMachine(models.Model):
    """A machine of a person's own, by its key."""

    owner = models.ForeignKey(User, on_delete=models.CASCADE, related_name="machines")
    name = models.CharField(max_length=40)
    data = models.JSONField()
    quota = Quota(
        "machines",
        200,
        "You have {most} machines of your own, the most that one person can keep here.",
        content=("data",),
    )

    class Meta:
        ordering = ["name"]
        constraints = [
            models.UniqueConstraint(fields=["owner", "name"], name="one_machine_of_a_name")
        ]
