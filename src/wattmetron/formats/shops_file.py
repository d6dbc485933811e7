"""How shops sell as JSON: shops.json of a catalogue folder."""

from collections import Counter
from collections.abc import Collection, Iterable
from typing import Annotated

from pydantic import Field, TypeAdapter, ValidationError

from wattmetron.core.values.shops import ShopRules
from wattmetron.formats.problems import Problem, add_problem

MOST_SHOPS = 500
_ADAPTER: TypeAdapter[list[ShopRules]] = TypeAdapter(
    Annotated[list[ShopRules], Field(max_length=MOST_SHOPS)]
)


def read_shops(
    file: str, data: bytes, regions: Collection[str], problems: list[Problem]
) -> dict[str, ShopRules]:
    """The rules by their keys; what cannot be read or holds in none of the regions, where there are
    some, is added to the problems.
    """
    try:
        ruleses = _ADAPTER.validate_json(data)
    except ValidationError as error:
        first = error.errors(include_url=False)[0]
        location = " › ".join(str(step) for step in first["loc"])
        add_problem(
            problems,
            file,
            actual=f"“{str(first.get('input'))[:60]}”",
            expected=f"shops as docs/formats.md describes them ({first['msg']})",
            column=location,
        )
        return {}
    for n, rules in enumerate(ruleses):
        if regions and rules.region not in regions:
            add_problem(
                problems,
                file,
                actual=f"“{rules.region[:60]}”",
                expected="a region of regions.csv",
                column=f"{n} › region",
            )
        for sentence, wrong in _odd(rules):
            add_problem(
                problems,
                file,
                actual=f"“{rules.shop[:60]}”",
                expected=sentence,
                column=f"{n} › {wrong}",
            )
    for key, count in Counter(rules.key for rules in ruleses).items():
        if count > 1:
            add_problem(
                problems,
                file,
                actual=f"“{key[:60]}” twice",
                expected="each shop once in a region",
                column="shop",
            )
    return {rules.key: rules for rules in ruleses}


def _odd(rules: ShopRules) -> Iterable[tuple[str, str]]:
    amounts = (rules.parcel_minor, rules.heavy_minor, rules.free_above_minor or 0)
    if not rules.shop.strip():
        yield "a name", "shop"
    if min(amounts) < 0:
        yield "amounts of 0 or more", "parcel_minor"
    for code in rules.codes:
        if not 0 <= code.percent <= 100 or min(code.minor, code.from_minor) < 0:
            yield "a code of 0 to 100 % and amounts of 0 or more", "codes"
    for lot in rules.together:
        if lot.price_minor < 0 or len(lot.parts) < 2:
            yield "two parts or more at a price of 0 or more", "together"
    for sale in rules.sales:
        if not sale.name.strip() or sale.end < sale.start:
            yield "a sale with a name that ends when it began or later", "sales"


def write_shops(shops: Iterable[ShopRules]) -> str:
    return _ADAPTER.dump_json(list(shops), indent=1).decode() + "\n"
