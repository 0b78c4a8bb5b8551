"""Single outlines become artworks of one layer."""

from __future__ import annotations

from typing import Any

from django.db import migrations, models


def layered(apps: Any, schema_editor: Any) -> None:
    for row in apps.get_model("shelf", "Artwork").objects.all():
        layer = {"name": row.name, "colour": "#8c8c8c", "path": row.path, "rule": row.rule}
        row.data = {"name": row.name, "scale": 1.0, "layers": [layer]}
        left, head, right, foot = row.picture.get("box", (0, 0, 0, 0))
        row.width, row.height = right - left, foot - head
        picture = {"name": row.name, "colour": "#8c8c8c", "path": row.picture.get("path", "")}
        counts = {"contours": 0, "openings": 0, "nodes": 0}
        row.picture = {"box": [left, head, right, foot], "layers": [{**picture, **counts}]}
        row.save()


class Migration(migrations.Migration):
    dependencies = [("shelf", "0001_initial")]

    operations = [
        migrations.RemoveConstraint("outline", "one_outline_each"),
        migrations.RenameModel("Outline", "Artwork"),
        migrations.AlterField(
            "artwork",
            "owner",
            models.ForeignKey(
                on_delete=models.CASCADE, related_name="artworks", to="auth.user"
            ),
        ),
        migrations.AddField("artwork", "earlier", models.JSONField(default=list)),
        migrations.AddField("artwork", "data", models.JSONField(default=dict)),
        migrations.AddField("artwork", "tags", models.JSONField(default=list)),
        migrations.AddField("artwork", "source", models.CharField(default="", max_length=120)),
        migrations.AddField("artwork", "width", models.FloatField(default=0.0)),
        migrations.AddField("artwork", "height", models.FloatField(default=0.0)),
        migrations.AddField("artwork", "binned", models.BooleanField(default=False)),
        migrations.AddField("artwork", "modified", models.DateTimeField(auto_now=True)),
        migrations.RunPython(layered, migrations.RunPython.noop),
        migrations.RemoveField("artwork", "path"),
        migrations.RemoveField("artwork", "rule"),
        migrations.AlterField("artwork", "data", models.JSONField()),
        migrations.AddConstraint(
            "artwork",
            models.UniqueConstraint(fields=["owner", "key"], name="one_artwork_each"),
        ),
    ]
