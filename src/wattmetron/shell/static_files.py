"""Styles, scripts and fonts: under names that change with what is in them, so that browsers never
ask twice.
"""

import hashlib
import re
from pathlib import Path

from fastapi.staticfiles import StaticFiles
from starlette.responses import Response
from starlette.types import Scope

STATIC = Path(__file__).with_name("static")
FOR_GOOD = "public, max-age=31536000, immutable"
_VERSION = re.compile(r"v-[0-9a-f]{12}/")


def _version(folder: Path) -> str:
    """A name for all files as they stand: styles name fonts by their place beside them."""
    hasher = hashlib.sha256()
    for path in sorted(folder.rglob("*")):
        if path.is_file():
            hasher.update(path.relative_to(folder).as_posix().encode() + path.read_bytes())
    return f"v-{hasher.hexdigest()[:12]}"


VERSION = _version(STATIC)


def static(name: str) -> str:
    """The address of a file, such as ``app.css``."""
    return f"/static/{VERSION}/{name}"


class VersionedFiles(StaticFiles):
    """Files under the present version, which browsers keep for good; under another (of a page that
    was open while the application was renewed) or none they are asked for each time.
    """

    async def get_response(self, path: str, scope: Scope) -> Response:
        version = _VERSION.match(path)
        answer = await super().get_response(path[version.end() :] if version else path, scope)
        fresh = version is not None and version[0] == f"{VERSION}/"
        answer.headers["cache-control"] = FOR_GOOD if fresh else "no-cache"
        return answer
