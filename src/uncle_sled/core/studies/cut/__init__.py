"""Pieces into cuts: bars, sheets by edge-to-edge cuts, and what each wants of stock."""
