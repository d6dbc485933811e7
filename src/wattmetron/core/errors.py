"""The tree of errors that a user can cause; every message is fit to show.

What a kind of error means to a program that asks (its status over HTTP) is said in one table, in
``shell/error_pages.py``.
"""

from typing import Any


class WattmetronError(Exception):
    """Base of all errors with a message for the user; the same in every process."""

    def __reduce__(self) -> tuple[Any, ...]:
        return _made, (type(self), self.args, self.__dict__)


def _made(
    kind: type[WattmetronError], args: tuple[Any, ...], state: dict[str, Any]
) -> WattmetronError:
    error = kind.__new__(kind, *args)
    error.__dict__.update(state)
    return error


class NotFoundError(WattmetronError):
    """Something was asked for by its id or address and is not there."""


class ConflictError(WattmetronError):
    """It was changed since the page was loaded, in another tab or window."""


class NotPossibleError(WattmetronError):
    """What was asked cannot be done as things stand, though it was asked well."""


class TooLargeError(WattmetronError):
    """More was sent than is taken."""


class BusyError(WattmetronError):
    """Somebody else holds what is needed; nothing was changed, and it can be tried again."""


class StorageError(WattmetronError):
    """What is stored cannot be read or written as things stand; the message says what to do."""


class InvalidError(WattmetronError):
    """What was typed or sent cannot be worked with; the message says which entry and what to do."""


class UnknownPartError(NotFoundError):
    """A part id that the catalogue does not hold."""

    def __init__(self, part_id: str) -> None:
        super().__init__(
            f"The catalogue has no part “{part_id}”: check the id or import a catalogue that holds"
            " it."
        )
        self.part_id = part_id


class UnknownGameError(NotFoundError):
    """A game id that the catalogue does not hold."""

    def __init__(self, game_id: str) -> None:
        super().__init__(
            f"The catalogue has no game “{game_id}”: check the id or import a catalogue that holds"
            " it."
        )


class BriefError(InvalidError):
    """A brief that cannot be worked with."""


class BuildError(InvalidError):
    """A build that cannot be read or changed as asked."""
