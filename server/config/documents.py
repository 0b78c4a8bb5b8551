"""Design documents in the API's schema: typed for the browser, read by the core alone.

A route takes a document as plain data, since it may be of an earlier version; the schema
says what it is now: the core's own, every kind of step by itself.
"""

from __future__ import annotations

from typing import Any

from ninja import NinjaAPI
from ninja.openapi.schema import OpenAPISchema

from server.computing.wishes import DOCUMENT_MARK


class Api(NinjaAPI):
    """The API with the core's documents in its schema."""

    def get_openapi_schema(self, **more: Any) -> OpenAPISchema:
        from stileblade.design.document import Design

        schema = super().get_openapi_schema(**more)
        own = Design.model_json_schema(
            mode="serialization", ref_template="#/components/schemas/{model}"
        )
        parts = own.pop("$defs")
        known = schema["components"]["schemas"]
        for name, part in parts.items():
            if (
                known.get(name, part).get("properties", {}).keys()
                != part.get("properties", {}).keys()
            ):
                raise RuntimeError(f"{name}: a part of documents and another form have one name")
        known.update({**parts, "Design": own})
        _point_at_documents(schema)
        return schema


def _point_at_documents(value: Any) -> None:
    """Marked places made references to the document's schema, in place."""
    for key, inner in list(value.items()) if isinstance(value, dict) else enumerate(value):
        if isinstance(inner, dict) and inner.get(DOCUMENT_MARK):
            value[key] = {"$ref": "#/components/schemas/Design"}
        elif isinstance(inner, dict | list):
            _point_at_documents(inner)
