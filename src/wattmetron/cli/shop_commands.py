"""Shops from the command line: the simulated ones, and asking the feeds of all."""

import argparse
import json
from contextlib import closing, suppress
from dataclasses import asdict
from datetime import UTC, datetime

from wattmetron.cli.places import database_of
from wattmetron.core.errors import NotPossibleError
from wattmetron.workshop.workshop import Workshop


def open_shops(options: argparse.Namespace) -> int:
    """Run the simulated shops alone, and say where their feeds are."""
    from wattmetron.demo import CATALOGUE
    from wattmetron.demo.shop_server import ShopServer
    from wattmetron.formats.catalogue_folder import read_catalogue

    try:
        shops = ShopServer(read_catalogue(CATALOGUE), options.port)
    except OSError as error:
        raise NotPossibleError(
            f"Port {options.port} cannot be used ({error.strerror}): name another with --port."
        ) from error
    print("The simulated shops (Ctrl+C ends them):", flush=True)
    print("\n".join(f"  {address}" for address in shops.addresses), flush=True)
    with suppress(KeyboardInterrupt):
        shops.run()
    return 0


def refresh_prices(options: argparse.Namespace) -> int:
    """Ask every feed once; 1 where one did not answer as it should."""
    from wattmetron.places.shops.feeds import FeedOutcome, refresh

    def told(outcome: FeedOutcome) -> None:
        if not options.json:
            print(outcome.words, flush=True)

    with closing(Workshop(database_of(options))) as workshop:
        outcomes = refresh(workshop, datetime.now(UTC).date(), told)
    if options.json:
        print(json.dumps([asdict(outcome) for outcome in outcomes], ensure_ascii=False, indent=1))
    return 1 if any(outcome.wrong for outcome in outcomes) else 0
