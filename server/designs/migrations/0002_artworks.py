"""Designs know the keys of their artworks."""

from __future__ import annotations

import json
from typing import Any

from django.db import migrations, models


def listed(apps: Any, schema_editor: Any) -> None:
    for design in apps.get_model("designs", "Design").objects.all():
        data = json.loads(design.document)
        design.artworks = list(data.get("artworks", data.get("outlines", {})))
        design.save(update_fields=["artworks"])


class Migration(migrations.Migration):
    dependencies = [("designs", "0001_initial")]

    operations = [
        migrations.AddField("design", "artworks", models.JSONField(default=list)),
        migrations.RunPython(listed, migrations.RunPython.noop),
    ]
