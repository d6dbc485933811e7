"""Games as their evidence leaves them: what all games teach, then their own tiers and results."""

from collections.abc import Iterator
from dataclasses import dataclass
from itertools import chain

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.game_fit.calibration import fit_game, uninformed
from wattmetron.core.game_fit.game_evidence import Item, informed_items
from wattmetron.core.game_fit.learned_priors import NOTHING_LEARNT, Learnt, as_learnt
from wattmetron.core.game_fit.learning import GameEvidence, GameLesson, learn_from, taught_by
from wattmetron.core.game_fit.residuals import Pair, Residual
from wattmetron.core.keep import Key
from wattmetron.core.requirements.tiers import tiers_of
from wattmetron.core.speeds.speed_scale import Scale, scale_of
from wattmetron.core.values.games import Game
from wattmetron.core.values.results import Result, Results

LEARNT: Key = ("learnt",)
MOST_AT_ONCE = 60
"""Games with results that are fitted while a page waits; some hundredths of a second each."""
SHARE = 40
"""So many games are fitted together where there are more."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Informed:
    """A game after its evidence, as it was known before, and what each tier and result says.

    ``lost`` are results whose parts the catalogue lacks; ``learnt`` is what other games taught.
    """

    game: Game
    before: Game
    items: tuple[Item, ...] = ()
    residuals: tuple[Residual, ...] = ()
    lost: tuple[Result, ...] = ()
    learnt: Learnt = NOTHING_LEARNT


def placed(results: Results | None, scale: Scale) -> tuple[tuple[Pair, ...], tuple[Result, ...]]:
    """The results that are not muted with their parts on the scale, and those whose parts are not
    there.
    """
    pairs, lost = [], []
    for result in results.items if results is not None else ():
        processor, graphics = scale.standing(result.processor), scale.standing(result.graphics)
        if processor is None or graphics is None:
            lost.append(result)
        elif not result.muted:
            pairs.append(Pair(result, processor, graphics))
    return tuple(pairs), tuple(lost)


def informed(
    game: Game,
    before: Game,
    items: tuple[Item, ...],
    results: Results | None,
    scale: Scale,
    learnt: Learnt,
) -> Informed:
    """The game, as what is learnt leaves it, fitted to its tiers and to its results that are not
    muted; no more than that where there are neither.
    """
    pairs, lost = placed(results, scale)
    if not items and not pairs:
        return Informed(game=uninformed(game, learnt), before=before, lost=lost, learnt=learnt)
    fit = fit_game(game, items, pairs, learnt)
    return Informed(
        game=fit.game,
        before=before,
        items=items,
        residuals=fit.residuals,
        lost=lost,
        learnt=learnt,
    )


def learnt_of(catalogue: Catalogue) -> Learnt:
    """What all games of a catalogue that have results teach about games; of many games something
    to wait for.
    """
    ids = tuple(catalogue.results)
    if len(ids) <= MOST_AT_ONCE:
        return catalogue.keep.once(
            LEARNT, lambda: learn_from(taught_by(_known(catalogue, ids), catalogue.keep))
        )
    shares = [(ids[start : start + SHARE],) for start in range(0, len(ids), SHARE)]
    taught = catalogue.ask_each(lessons_of_share, shares)
    return catalogue.keep.once(LEARNT, lambda: learn_from([*chain.from_iterable(taught)]))


def lessons_of_share(catalogue: Catalogue, game_ids: tuple[str, ...]) -> tuple[GameLesson, ...]:
    """What some games with results say of all games."""
    return taught_by(_known(catalogue, game_ids), catalogue.keep)


def _known(catalogue: Catalogue, game_ids: tuple[str, ...]) -> Iterator[GameEvidence]:
    scale = scale_of(catalogue)
    for game_id in game_ids:
        results = catalogue.results[game_id]
        pairs, _ = placed(results, scale)
        if pairs and game_id not in catalogue.described_games:
            game = catalogue.game(game_id)
            yield GameEvidence(game, _items(catalogue, game, NOTHING_LEARNT), pairs)


def _items(catalogue: Catalogue, game: Game, learnt: Learnt) -> tuple[Item, ...]:
    requirements = catalogue.published.get(game.id)
    day = (requirements.published_on if requirements else None) or game.released
    return informed_items(game, tiers_of(catalogue), scale_of(catalogue), day, learnt)


def informed_game(catalogue: Catalogue, game_id: str) -> Informed:
    """A game with the evidence of its requirements and results; raises UnknownGameError.

    Where the catalogue takes a game as told, no evidence counts.
    """
    if game_id in catalogue.described_games:
        return Informed(game=catalogue.described_games[game_id], before=catalogue.game(game_id))
    game = catalogue.game(game_id)
    return catalogue.keep.once(("informed", game_id), lambda: _informed(catalogue, game))


def _informed(catalogue: Catalogue, game: Game) -> Informed:
    learnt = learnt_of(catalogue)
    learned = as_learnt(game, learnt)
    items = _items(catalogue, learned, learnt)
    results = catalogue.results.get(game.id)
    pairs, lost = placed(results, scale_of(catalogue))
    keep = catalogue.keep
    taught = keep.once(("taught",), lambda: keep.digest(learnt))
    return keep.lasting(
        ("fitted", game.id),
        (learned, game, items, pairs, lost, taught),
        lambda: informed(learned, game, items, results, scale_of(catalogue), learnt),
    )


def fitted_game(catalogue: Catalogue, game_id: str) -> Game:
    """A game as its evidence leaves it: what estimates use. Raises UnknownGameError."""
    return informed_game(catalogue, game_id).game
