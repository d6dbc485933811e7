"""Meters from the command line: the simulated ones."""

import argparse
from contextlib import suppress

from wattmetron.core.errors import NotPossibleError


def open_meters(options: argparse.Namespace) -> int:
    """Run the simulated meters alone, and say where they are."""
    from wattmetron.demo.simulated_meters import MeterServer, truth

    try:
        meters = MeterServer(options.port)
    except OSError as error:
        raise NotPossibleError(
            f"Port {options.port} cannot be used ({error.strerror}): name another with --port."
        ) from error
    truth()
    print(f"The simulated meters (Ctrl+C ends them):\n  {meters.url}", flush=True)
    with suppress(KeyboardInterrupt):
        meters.run()
    return 0
