"""A client of the running application, over HTTP."""

from __future__ import annotations

import http.client
import json
from typing import Any


class Client:
    """A visitor of the demo on a connection of its own."""

    def __init__(self, address: str) -> None:
        self._connection = http.client.HTTPConnection(address.removeprefix("http://"), timeout=60)
        self._cookie = ""
        self.ask("GET", "/session")

    def ask(self, method: str, path: str, body: Any = None) -> tuple[int, Any]:
        headers = {"Content-Type": "application/json", "Cookie": f"csrftoken={self._cookie}"}
        headers |= {"X-CSRFToken": self._cookie} if self._cookie else {}
        sent = None if body is None else json.dumps(body)
        self._connection.request(method, f"/api{path}", sent, headers)
        answer = self._connection.getresponse()
        content = answer.read()
        for name, value in answer.getheaders():
            if name.lower() == "set-cookie" and value.startswith("csrftoken="):
                self._cookie = value.removeprefix("csrftoken=").partition(";")[0]
        return answer.status, json.loads(content)
