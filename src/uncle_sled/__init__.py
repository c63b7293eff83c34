"""A workbench for people who build their own trailer body or camper."""

__version__ = "0.2.0"  # the one place; CHANGELOG.md says what is in it
