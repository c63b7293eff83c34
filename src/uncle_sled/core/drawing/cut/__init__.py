"""Drawings of what is cut: sheets and bars to scale."""
