"""Whether something was changed for good meanwhile."""

from wattmetron.store.database import changes_watched

__all__ = ["changes_watched"]
