"""Jobs that were kept before folds ran along the grain by default, and valleys were scored from the inside, stay as
they were laid out."""

from __future__ import annotations

from typing import Any

from django.db import migrations

AS_THEY_WERE = {"with_grain": False, "inside": "meant"}


def keep(apps: Any, schema_editor: Any) -> None:
    for job in apps.get_model("jobs", "Job").objects.only("options").iterator():
        options = {**AS_THEY_WERE, **job.options}
        if options != job.options:
            job.options = options
            job.save(update_fields=["options"])


class Migration(migrations.Migration):
    dependencies = [("jobs", "0001_initial")]
    operations = [migrations.RunPython(keep, migrations.RunPython.noop)]
