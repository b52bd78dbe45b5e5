"""``python -m lucky_margin.cli``."""

import sys

from lucky_margin.cli import main

sys.exit(main())
