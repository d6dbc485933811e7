"""Heat that a case carries off."""

AIR_W = {"mesh": 320, "side vents": 240, "closed": 160}


FAN_W = 90


def case_heat_w(airflow: str, fans: int) -> int:
    """Heat in W that a case carries off quietly: a rule of thumb by how air gets in, and more for
    each fan.
    """
    return AIR_W[airflow] + FAN_W * fans
