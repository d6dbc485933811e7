"""Floors that a brief implies: main memory and storage."""

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.other_work import storage_more_gb, with_work_gb


def memory_floor_gb(catalogue: Catalogue, brief: Brief) -> float:
    """Main memory that the brief, one of its games with the work beside it, or other work wants."""
    games_gb = max(
        (catalogue.game(t.game_id).memory_gb for t in brief.counted_targets), default=0.0
    )
    return max(brief.memory_gb, with_work_gb(brief.work, games_gb))


def storage_floor_gb(catalogue: Catalogue, brief: Brief) -> float:
    """Storage that the brief wants, or all its games together with a fifth kept free; what other
    work wants on top.
    """
    games = {target.game_id for target in brief.targets}
    return max(
        brief.storage_gb, sum(catalogue.game(game).storage_gb for game in games) / 0.8
    ) + storage_more_gb(brief.work)
