"""``python -m uncle_sled`` is ``uncle-sled``."""

import sys

from uncle_sled.cli import main

if __name__ == "__main__":
    sys.exit(main())
