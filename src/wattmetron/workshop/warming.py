"""What is worked out beside the first pages after a start, so that they need not wait for it."""

from contextlib import suppress
from threading import Thread

from wattmetron.core.errors import WattmetronError
from wattmetron.core.game_fit.informed import MOST_AT_ONCE, fitted_game
from wattmetron.workshop.workshop import Workshop


def warm(workshop: Workshop) -> None:
    """Fits the games of all briefs. Of a catalogue where that takes long it is left to the first
    page, which shows how far it is.
    """
    with suppress(WattmetronError):
        if not workshop.has_catalogue():
            return
        catalogue = workshop.catalogue()
        if len(catalogue.results) > MOST_AT_ONCE:
            return
        targets = (target for row in workshop.briefs() for target in row.plan.brief.targets)
        for game_id in dict.fromkeys(target.game_id for target in targets):
            with suppress(WattmetronError):
                fitted_game(catalogue, game_id)


def warm_beside(workshop: Workshop) -> None:
    """The same in a thread that ends with the process."""
    Thread(target=warm, args=(workshop,), daemon=True, name="warming").start()
