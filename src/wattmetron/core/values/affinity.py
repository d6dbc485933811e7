"""What the results of a game told about a part beyond its speed."""

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Affinity:
    """How a part takes to one game, as far as results of it or of its design say.

    ``shift`` is the ln by which its time is longer than its speed says; ``places`` are where its
    errors stand among the parameters of the fit. What is ``open`` the fit knows nothing of: the
    error of the part's own speed, and of how its design takes to this game; ``model_sd`` is then
    how differently games take to a design, by other games (None: as it is taken for granted).
    """

    shift: float = 0.0
    places: tuple[int, ...] = ()
    speed_open: bool = True
    design_open: bool = True
    model_sd: float | None = None


UNSEEN = Affinity()
