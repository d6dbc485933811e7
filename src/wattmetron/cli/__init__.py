"""The command line."""

from wattmetron.cli.commands import main

__all__ = ["main"]
