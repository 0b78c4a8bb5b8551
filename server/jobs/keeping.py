"""What becomes of what a run found."""

from __future__ import annotations

from typing import Any

from django.db import transaction

from server.jobs.models import Job, Run


def taken_over(run: Run, result: dict[str, Any]) -> None:
    """What a run found becomes the job's, where it is a layout that nobody has begun anew since."""
    if run.task != "lay" or run.job_id is None:
        return
    with transaction.atomic():
        newest = Run.objects.filter(job_id=run.job_id, task="lay").order_by("-pk").first()
        if newest is None or newest.pk != run.pk or newest.state == Run.State.REPLACED:
            return
        job = Job.objects.filter(pk=run.job_id).first()
        if job is None:
            return
        job.remember()
        job.layout, job.revision = result, job.revision + 1
        job.laid_from = run.asked.get("laid_from", {})
        job.save()
