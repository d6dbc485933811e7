"""How a machine is used, as its brief and region say."""

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.power.account import PowerUse
from wattmetron.places.assessment.assess import Assessment, supply_reserve_percent


def use_of(catalogue: Catalogue, now: Assessment) -> PowerUse:
    """Headroom, hours, tariff and mains of a brief, the region's where it says none."""
    brief, region = now.brief, catalogue.region(now.brief.region)
    tariff = region.tariff_per_kwh if brief.tariff_per_kwh is None else brief.tariff_per_kwh
    return PowerUse(
        headroom_percent=brief.headroom_percent,
        reserve_percent=supply_reserve_percent(brief, now.machine),
        play_hours=brief.play_hours,
        desk_hours=brief.desk_hours,
        tariff_per_kwh=tariff,
        mains_v=region.mains_v,
    )
