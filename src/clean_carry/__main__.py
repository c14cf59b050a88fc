"""`python -m clean_carry`."""

from clean_carry.cli.main import run

run()
