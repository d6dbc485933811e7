"""The tree of errors that a user can cause; every message is fit to show."""


class WattmetronError(Exception):
    """Base of all errors with a message for the user."""


class UnknownPartError(WattmetronError):
    """A part id that the catalogue does not hold."""

    def __init__(self, part_id: str) -> None:
        super().__init__(
            f"The catalogue has no part “{part_id}”: check the id or import a catalogue that"
            " holds it."
        )
        self.part_id = part_id


class UnknownGameError(WattmetronError):
    """A game id that the catalogue does not hold."""

    def __init__(self, game_id: str) -> None:
        super().__init__(
            f"The catalogue has no game “{game_id}”: check the id or import a catalogue that"
            " holds it."
        )


class BriefError(WattmetronError):
    """A brief that cannot be worked with; the message says which entry and what to do."""


class BuildError(WattmetronError):
    """A build that cannot be read or changed as asked."""
