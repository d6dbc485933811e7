"""How the shops of the made-up world sell."""

from datetime import date

from wattmetron.core.values.shops import BundleOffer, Code, Sale, ShopRules

EQUINOX = Sale(name="Equinox days", start=date(2026, 9, 25), end=date(2026, 9, 28))
LANTERN = Sale(name="Lantern week", start=date(2026, 12, 4), end=date(2026, 12, 10))
RATES = "2026-10-20 EUR NOK 11.62\n2026-11-20 EUR NOK 11.70\n"
SALES = (EQUINOX, LANTERN)

SHOPS = (
    ShopRules(
        shop="Quayside Parts",
        region="vellmouth",
        parcel_minor=4_90,
        free_above_minor=250_00,
        sales=SALES,
        returns_days=30,
        trust="proven",
        trust_why="nineteen years on the quay, takes back without a word",
        codes=(
            Code(
                code="DRYDOCK5",
                percent=5,
                from_minor=150_00,
                until=date(2026, 12, 12),
                kinds=("case", "supply", "cooler", "fan"),
            ),
        ),
    ),
    ShopRules(
        shop="Three Gulls Computing",
        region="vellmouth",
        parcel_minor=4_90,
        free_above_minor=250_00,
        sales=SALES,
        returns_days=14,
        codes=(Code(code="GULL15", minor=15_00, from_minor=500_00),),
        together=(
            BundleOffer(
                parts=("quickfen-marram-16-pair-ddr5", "ledgerock-ledge-1000"), price_minor=104_90
            ),
        ),
    ),
    ShopRules(
        shop="Northlight Direct",
        region="vellmouth",
        parcel_minor=4_90,
        free_above_minor=250_00,
        sales=SALES,
        returns_days=14,
        together=(
            BundleOffer(
                parts=("quillon-cutter-flood-6", "coldreach-gust"),
                price_minor=198_90,
                until=date(2026, 12, 24),
            ),
        ),
    ),
    ShopRules(shop="The Second Bench", region="vellmouth", parcel_minor=4_90, returns_days=0),
    ShopRules(
        shop="Overwater Elektro",
        region="overwater",
        parcel_minor=79_00,
        free_above_minor=2_900_00,
        returns_days=14,
    ),
    ShopRules(
        shop="Northlight Direct",
        region="overwater",
        parcel_minor=79_00,
        free_above_minor=2_900_00,
        returns_days=14,
    ),
)
