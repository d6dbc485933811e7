"""Heat that a case carries off."""

AIR_W = {"mesh": 340, "side vents": 250, "closed": 160}
FAN_W = 90
FAN_MM = 120
"""Size that nearly every place takes: fans of it are added."""
TOO_HOT = 1.5
"""So many times what is carried off quietly is too hot, however fast the fans turn."""


def case_heat_w(airflow: str, fans: int) -> int:
    """Heat in W that a case carries off quietly: a rule of thumb by how air gets in, and more for
    each fan.
    """
    return AIR_W[airflow] + FAN_W * fans
