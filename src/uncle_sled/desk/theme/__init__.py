"""Colours, fonts and the style sheet of the desk, made from the one ink table."""
