"""What the log says of a request."""

LINKS = "/h/"
"""Links to handouts: what follows is a key, and they are made to be followed from elsewhere."""
MOST_LOGGED = 200


def logged_path(path: str) -> str:
    """A path as it is logged: on one line, of bounded length, without the key of a link."""
    if path.startswith(LINKS):
        path = LINKS + "…" + "".join(path[len(LINKS) :].partition("/")[1:])
    plain = path.encode("unicode_escape").decode() if not path.isprintable() else path
    return plain if len(plain) <= MOST_LOGGED else plain[:MOST_LOGGED] + "…"
