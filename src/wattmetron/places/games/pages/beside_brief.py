"""A game, or parts as good as another, beside a brief."""

from functools import partial

from wattmetron.core.speeds.equal_parts import Use
from wattmetron.places.assessment.pages.view_spec import ViewContext
from wattmetron.places.games.contenders import machine_contender
from wattmetron.places.games.pages.equals_panel import EqualsView, equals_view
from wattmetron.places.games.pages.game import GamePanel, game_panel
from wattmetron.places.games.pages.machine_panel import MeasuredMachine
from wattmetron.places.games.publishing import game_state


def game_beside(context: ViewContext) -> GamePanel | None:
    """The game that the address names, measured against what is in the build or being tried."""
    game_id, brief, shown = context.query.game, context.opened.plan.brief, context.shown
    if game_id is None or game_id not in context.catalogue.games:
        return None
    machine = MeasuredMachine(
        contender=machine_contender(shown.machine, brief.system),
        words=f"{brief.name}, as tried" if context.tried else brief.name,
        brief=context.opened,
        typed="",
        sureness=brief.chance,
        now=context.present,
    )
    equal = context.query.equal or ""
    return game_panel(
        context.catalogue,
        game_id,
        machine,
        game_state(context.workshop, game_id),
        lambda equal=context.query.equal: _link(context, equal=equal),
        equal,
        partial(_trial, context),
    )


def equals_beside(context: ViewContext) -> EqualsView | None:
    """Parts as good as the one that the address names, where no game stands beside."""
    if context.query.equal is None or context.query.game is not None:
        return None
    brief = context.opened.plan.brief
    machine = MeasuredMachine(
        contender=None,
        words="",
        brief=context.opened,
        typed="",
        sureness=brief.chance,
        now=context.present,
    )
    pixels = brief.display.width_px * brief.display.height_px / 1e6
    return equals_view(
        context.catalogue,
        context.query.equal,
        machine,
        Use(rendered_mpx=pixels),
        lambda equal=None: _link(context, equal=equal),
        partial(_trial, context),
    )


def _link(context: ViewContext, **changes: object) -> str:
    left: dict[str, object] = {"swap": None, "propose": None, "working": None}
    return context.query.url(context.opened.id, **(left | changes))


def _trial(context: ViewContext, code: str) -> str:
    return _link(context, tried=code)
