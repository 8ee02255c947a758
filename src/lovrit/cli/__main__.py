"""``python -m lovrit.cli``."""

from lovrit.cli import main

main()
