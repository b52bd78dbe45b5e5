"""``python -m lucky_margin.cli``."""

import sys

from lucky_margin.cli.commands import main

sys.exit(main())
