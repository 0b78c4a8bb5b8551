"""The API: one router for each app, errors as problem+json, CSRF on every change."""

from __future__ import annotations

from django.http import HttpRequest
from django.middleware.csrf import get_token
from ninja.errors import HttpError
from ninja.utils import check_csrf

from server.accounts.routes import router as accounts
from server.config.documents import Api
from server.config.problems import install
from server.designs.kin_routes import router as families
from server.designs.routes import router as designs
from server.designs.work_routes import router as work
from server.jobs.routes import router as jobs
from server.jobs.run_routes import router as runs
from server.reading.routes import router as reading
from server.shelf.artwork_routes import router as artworks
from server.shelf.routes import router as shelf


def checked(request: HttpRequest) -> bool:
    """Every request of the API: no change without the token of this site's own page."""
    if check_csrf(request) is not None:
        raise HttpError(403, "The request did not come from this site's own page.")
    if request.method == "GET":  # whoever changes something has the token already
        get_token(request)
    return True


api = Api(title="Stileblade", version="1", docs_url=None, auth=checked)
install(api)
api.add_router("", accounts)
api.add_router("", designs)
api.add_router("", families)
api.add_router("", work)
api.add_router("", reading)
api.add_router("", shelf)
api.add_router("", artworks)
api.add_router("", jobs)
api.add_router("", runs)
