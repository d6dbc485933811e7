"""``python -m wattmetron.cli``."""

import sys

from wattmetron.cli.commands import main

sys.exit(main())
