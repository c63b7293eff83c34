"""Cut lists for tests."""

from uncle_sled.core.studies.cut.wanted import NO_STOCK, wrong_pieces, wrong_saw, wrong_stocks


def wrong_with(pieces, stocks, kerf_m=0.0, trim_m=0.0):
    """Everything that stands in the way of cutting, as the cutting of a build asks it part by part."""
    found = (*wrong_saw(kerf_m, trim_m), *wrong_pieces(pieces, kerf_m), *wrong_stocks(stocks, trim_m))
    return found if stocks else (*found, NO_STOCK)
