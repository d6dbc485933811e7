"""Which shop for each part, so that the delivered total is least: integer programming.

Whole numbers say how many of a part come from a shop and which parts are taken together; yes-or-no
variables say whether a shop sends a parcel, whether it is free, whether something heavy is in it,
and which code is used. HiGHS (through SciPy) solves it; the parcels are then reckoned again to the
cent, and the two must agree.
"""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, field

import numpy as np
from scipy.optimize import Bounds, LinearConstraint, milp
from scipy.sparse import csr_array

from wattmetron.core.buying.basket import Bought, Bundled, Market, Parcel, PartSource, Want, parcel
from wattmetron.core.errors import NotPossibleError
from wattmetron.core.values.shops import HEAVY_KINDS, Code, ShopRules

ENDLESS = np.inf
Row = list[tuple[int, float]]


@dataclass(frozen=True, slots=True)
class Purchase:
    """Parcels in the order of their shops."""

    parcels: tuple[Parcel, ...]

    @property
    def total_minor(self) -> int:
        """What is paid."""
        return sum(each_parcel.total_minor for each_parcel in self.parcels)

    @property
    def risk_minor(self) -> int:
        return sum(each_parcel.risk_minor for each_parcel in self.parcels)

    @property
    def cost_minor(self) -> int:
        """What is compared: what is paid, and the risk."""
        return self.total_minor + self.risk_minor


def purchase(market: Market, most_parcels: int | None = None) -> Purchase | None:
    """The cheapest way to buy everything that is wanted, in at most so many parcels; among equally
    cheap ones one with fewest parcels. None where it cannot be done.
    """
    return next(_purchases(market, most_parcels), None)


def by_parcels(market: Market) -> tuple[Purchase, ...]:
    """The cheapest purchase, and the cheapest with each smaller number of parcels."""
    return tuple(_purchases(market, None))


def _purchases(market: Market, most_parcels: int | None) -> Iterator[Purchase]:
    """The cheapest purchase in so many parcels, then with fewer and fewer; those that cost no more
    with fewer are left out.
    """
    if not market.wants:
        yield Purchase(())
        return
    program = _Program(market)
    most = len(market.shops) if most_parcels is None else most_parcels
    solution = program.cheapest(most)
    while solution is not None:
        fewer = program.cheapest(len(solution.parcels) - 1)
        if fewer is None or fewer.cost_minor > solution.cost_minor:
            yield solution
        solution = fewer


@dataclass
class _Program:
    """The variables and rows of one market."""

    market: Market
    costs: list[float] = field(default_factory=list)
    highest: list[float] = field(default_factory=list)
    rows: list[tuple[Row, float, float]] = field(default_factory=list)

    def __post_init__(self) -> None:
        market = self.market
        self.takes = {
            source: self._add(source.price_minor + source.risk_minor, self._count(source))
            for source in _singles(market)
        }
        self.bundled = [
            (
                shop,
                bundle,
                self._add(
                    bundle.price_minor,
                    min(want.times for want in market.wants if want.part_id in bundle.parts),
                ),
            )
            for shop, bundle in market.bundles()
        ]
        for want in market.wants:
            self._meet(want)
        self.sends = {shop: self._add(0, 1) for shop in market.shops}
        for shop in market.shops:
            self._parcel(shop)

    def _count(self, source: PartSource) -> int:
        return next(want.times for want in self.market.wants if want.part_id == source.part_id)

    def _add(self, cost: float, highest: float) -> int:
        self.costs.append(cost)
        self.highest.append(highest)
        return len(self.costs) - 1

    def _row(self, row: Iterable[tuple[int, float]], low: float, high: float) -> None:
        self.rows.append((list(row), low, high))

    def _meet(self, want: Want) -> None:
        """Everything that is wanted is bought, one by one or together with others."""
        row: Row = [(x, 1.0) for source, x in self.takes.items() if source.part_id == want.part_id]
        row += [(x, float(bundle.parts.count(want.part_id))) for _, bundle, x in self.bundled]
        self._row([entry for entry in row if entry[1]], want.times, want.times)

    def _parcel(self, shop: str) -> None:
        market, sends = self.market, self.sends[shop]
        inside: Row = [(x, 1.0) for source, x in self.takes.items() if source.shop == shop]
        inside += [(x, 1.0) for bundle, _, x in self.bundled if bundle == shop]
        for x, _ in inside:
            self._row([(x, 1), (sends, -self.highest[x])], -ENDLESS, 0)
        rules = market.rules.get(shop)
        if rules is None:
            for source, x in self.takes.items():
                if source.shop == shop:
                    self.costs[x] += source.alone_minor
            return
        self._ship(rules, sends)
        self._discount(rules)

    def _goods(self, shop: str) -> Row:
        row: Row = [
            (x, source.price_minor) for source, x in self.takes.items() if source.shop == shop
        ]
        return row + [(x, bundle.price_minor) for name, bundle, x in self.bundled if name == shop]

    def _ship(self, rules: ShopRules, sends: int) -> None:
        """Shipping is paid unless the goods reach the threshold; more where something is heavy."""
        heavy = self._add(0, 1)
        for source, x in self.takes.items():
            if source.shop == rules.shop and self.market.kind(source.part_id) in HEAVY_KINDS:
                self._row([(x, 1), (heavy, -self.highest[x])], -ENDLESS, 0)
        for shop, bundle, x in self.bundled:
            if shop == rules.shop and any(self.market.kind(p) in HEAVY_KINDS for p in bundle.parts):
                self._row([(x, 1), (heavy, -self.highest[x])], -ENDLESS, 0)
        most = rules.parcel_minor + rules.heavy_minor
        ship = self._add(1, most)
        row: Row = [(ship, 1), (sends, -rules.parcel_minor), (heavy, -rules.heavy_minor)]
        if rules.free_above_minor is not None:
            free = self._add(0, 1)
            self._row([*self._goods(rules.shop), (free, -rules.free_above_minor)], 0, ENDLESS)
            row.append((free, most))
        self._row(row, 0, ENDLESS)

    def _discount(self, rules: ShopRules) -> None:
        """At most one code of a shop; it takes off a whole number of cents."""
        used = []
        for code in rules.codes:
            if code.holds_on(self.market.day):
                used.append(self._code(rules, code))
        if used:
            self._row([(variable, 1) for variable in used], 0, 1)

    def _code(self, rules: ShopRules, code: Code) -> int:
        uses = self._add(0, 1)
        goods = self._goods(rules.shop)
        counts: Row = [
            (x, source.price_minor)
            for source, x in self.takes.items()
            if source.shop == rules.shop
            and (not code.kinds or self.market.kind(source.part_id) in code.kinds)
        ]
        most = sum(self.highest[x] * price for x, price in counts)
        off = self._add(-1, most)
        share = round(code.percent * 100)
        part: Row = [(x, -price * share) for x, price in counts]
        self._row([(off, 10_000), *part], -ENDLESS, 10_000 * code.minor)
        self._row([(off, 1), *((x, -price) for x, price in counts)], -ENDLESS, 0)
        self._row([(off, 1), (uses, -most)], -ENDLESS, 0)
        self._row([*goods, (uses, -code.from_minor)], 0, ENDLESS)
        return uses

    def cheapest(self, most_parcels: int) -> Purchase | None:
        """Solved with at most so many parcels; None where there is no way."""
        if not self.costs or most_parcels < 1:
            return None
        rows = [*self.rows, ([(x, 1.0) for x in self.sends.values()], 0.0, float(most_parcels))]
        places = [(n, x, value) for n, (row, _, _) in enumerate(rows) for x, value in row]
        matrix = csr_array(
            (
                [source[2] for source in places],
                ([source[0] for source in places], [source[1] for source in places]),
            ),
            shape=(len(rows), len(self.costs)),
        )
        solution = milp(
            np.array(self.costs),
            integrality=np.ones(len(self.costs), dtype=np.int64),
            bounds=Bounds(np.zeros(len(self.costs)), np.array(self.highest)),
            constraints=LinearConstraint(
                matrix, np.array([row[1] for row in rows]), np.array([row[2] for row in rows])
            ),
            options={"mip_rel_gap": 0.0},
        )
        if solution.x is None:
            return None
        made = Purchase(tuple(self._parcels(solution.x.round().astype(int))))
        if abs(made.cost_minor - solution.fun) > 0.5:
            raise NotPossibleError(
                f"The purchase costs {made.cost_minor} by the shops' rules and"
                f" {solution.fun:.2f} by the program: tell us, this is a defect."
            )
        return made

    def _parcels(self, chosen: np.ndarray) -> Iterator[Parcel]:
        for shop in self.market.shops:
            bought = [
                Bought(source, int(chosen[x]))
                for source, x in self.takes.items()
                if source.shop == shop and chosen[x]
            ]
            bundled = [
                Bundled(shop, bundle, int(chosen[x]))
                for name, bundle, x in self.bundled
                if name == shop and chosen[x]
            ]
            if bought or bundled:
                yield parcel(self.market, shop, bought, bundled)


def _singles(market: Market) -> Iterator[PartSource]:
    """The places of what is wanted, each once."""
    wanted = {want.part_id for want in market.wants}
    return iter(dict.fromkeys(source for source in market.places if source.part_id in wanted))
