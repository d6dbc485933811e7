"""The made-up market: which shop sells what, at which price."""

import random
from datetime import timedelta
from decimal import Decimal

from tools.world.offer_terms import free, with_terms
from wattmetron.core.values.offers import Offer, Region
from wattmetron.core.values.parts import Part
from wattmetron.demo import TODAY

REGIONS = {
    "vellmouth": Region(
        id="vellmouth",
        name="Vellmouth",
        currency="EUR",
        tax_percent=21.0,
        mains_v=230,
        tariff_per_kwh=Decimal("0.32"),
    ),
    "overwater": Region(
        id="overwater",
        name="Overwater",
        currency="NOK",
        tax_percent=25.0,
        mains_v=230,
        tariff_per_kwh=Decimal("1.45"),
    ),
}
NOK_PER_EUR = 11.6


class MadeUpMarket:
    """Shops that ask a little more or less, run out, and sell old parts used."""

    def __init__(self, seed: int = 20261120, offers: list[Offer] | None = None) -> None:
        self.random = random.Random(seed)
        self.offers: list[Offer] = [] if offers is None else offers

    def stock(self, part: Part, eur: float) -> None:
        draw = self.random
        for shop, level in (
            ("Quayside Parts", 1.0),
            ("Three Gulls Computing", 1.02),
            ("Northlight Direct", 0.985),
        ):
            if draw.random() < 0.86:
                self._offer(
                    part,
                    shop,
                    "vellmouth",
                    eur * level * draw.uniform(0.97, 1.05),
                    draw.random() > 0.09,
                )
        if not any(offer.part_id == part.id for offer in self.offers):
            self._offer(part, "Quayside Parts", "vellmouth", eur, True)
        if draw.random() < 0.82:
            self._offer(
                part,
                "Overwater Elektro",
                "overwater",
                eur * draw.uniform(1.0, 1.1),
                draw.random() > 0.12,
            )
        if draw.random() < 0.5:
            self._offer(
                part,
                "Northlight Direct",
                "overwater",
                eur * draw.uniform(0.98, 1.12),
                draw.random() > 0.1,
            )
        if part.released and part.released.year <= 2023 and draw.random() < 0.7:
            self._offer(
                part,
                "The Second Bench",
                "vellmouth",
                eur * draw.uniform(0.5, 0.68),
                True,
                used=True,
            )

    def remnants(self, part: Part, eur: float) -> None:
        """Used, and now and then a last new one."""
        self._offer(
            part,
            "The Second Bench",
            "vellmouth",
            eur * self.random.uniform(0.9, 1.1),
            True,
            used=True,
        )
        if self.random.random() < 0.3:
            self._offer(
                part, "Three Gulls Computing", "vellmouth", eur * 1.7, self.random.random() < 0.6
            )

    def _offer(
        self, part: Part, shop: str, region: str, eur: float, in_stock: bool, used: bool = False
    ) -> None:
        if not eur:
            self.offers.append(free(part, shop, region))
            return
        abroad = region == "overwater"
        price = round(eur * NOK_PER_EUR / 10) * 10 - 1 if abroad else round(eur) - 0.1
        if eur > 250:
            shipping = 0.0
        elif abroad:
            shipping = 79.0
        else:
            shipping = 4.9
        days = self.random.choice((0, 0, 1, 1, 2, 3, 5)) if self.random.random() > 0.06 else 24
        self.offers.append(
            Offer(
                part_id=part.id,
                shop=shop,
                region=region,
                currency=REGIONS[region].currency,
                price_minor=round(price * 100),
                shipping_minor=round(shipping * 100),
                stock="in" if in_stock else "out",
                condition="used" if used else "new",
                seen_on=TODAY - timedelta(days=days),
            )
        )
        self.offers[-1] = with_terms(part, self.offers[-1])
