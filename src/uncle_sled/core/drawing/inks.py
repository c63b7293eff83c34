"""The one table of colours, light and dark, that screen and paper share.

``pairs`` lists every text-on-ground and mark-on-ground pair that is used, with the contrast it
must have, so that a test can hold the table to it.
"""

from __future__ import annotations

LIGHT = {
    "kraft": "#E9DFCF",
    "kraft deep": "#DDD0BB",
    "trail": "#E2D6C3",
    "paper": "#FBF8F1",
    "body": "#FFFEFA",
    "ink": "#26221D",
    "pencil": "#62584E",
    "rule": "#D6CAB8",
    "chalk": "#28559A",
    "on chalk": "#FFFFFF",
    "chalk wash": "#E2E9F4",
    "primer": "#A2372A",
    "primer wash": "#F6E2DD",
    "ochre": "#B7791F",
    "ochre word": "#7E5108",
    "spruce": "#33624A",
    "spruce wash": "#DCE8DD",
    "zinc": "#5A6C76",
    "wood": "#D9B27C",
    "foam": "#F0DCA6",
    "fresh": "#3C8DAA",
    "grey": "#7F8B86",
    "gas": "#B65F35",
    "power": "#8A6A1F",
    "cargo": "#8C6F8F",
    "kit": "#8FA0AB",
    "outside": "#94A36B",
    "fuel": "#A0522D",
    "vehicle": "#8A8378",
    "tyre": "#4A443D",
    "hub": "#CFC6B8",
    "frame": "#5A6C76",
    "shell": "#D9B27C",
    "field": "#FFFDF8",
    "field edge": "#A89A85",
    "sled": "#2F2A24",
    "sled ink": "#F3EBDD",
    "sled pencil": "#BFB29E",
    "sled rule": "#5A5046",
    "sled good": "#8FC79F",
    "sled bad": "#F0978A",
    "sled mind": "#F0C36B",
    "sled chalk": "#9DBDF0",
    "sled track": "#4A4239",
    "sled wood": "#DDB57B",
}
DARK = {
    "kraft": "#26221E",
    "kraft deep": "#1E1B17",
    "trail": "#221E1A",
    "paper": "#332E28",
    "body": "#3B352E",
    "ink": "#F1E9DB",
    "pencil": "#BBAF9D",
    "rule": "#544B40",
    "chalk": "#8FB3EC",
    "on chalk": "#15202F",
    "chalk wash": "#33404F",
    "primer": "#EF9385",
    "primer wash": "#4B302B",
    "ochre": "#E2A94F",
    "ochre word": "#E8B765",
    "spruce": "#8CC39C",
    "spruce wash": "#2F4236",
    "zinc": "#93A7B2",
    "wood": "#C79E66",
    "foam": "#B8A26B",
    "fresh": "#6FB9D3",
    "grey": "#A6B1AC",
    "gas": "#E08C60",
    "power": "#C9A44A",
    "cargo": "#BD9FC0",
    "kit": "#9DADB8",
    "outside": "#B3C187",
    "fuel": "#D98A62",
    "vehicle": "#A89F92",
    "tyre": "#15120F",
    "hub": "#8B8175",
    "frame": "#93A7B2",
    "shell": "#C79E66",
    "field": "#2B2621",
    "field edge": "#857A6C",
    "sled": "#161310",
    "sled ink": "#F3EBDD",
    "sled pencil": "#BFB29E",
    "sled rule": "#4E453C",
    "sled good": "#8FC79F",
    "sled bad": "#F0978A",
    "sled mind": "#F0C36B",
    "sled chalk": "#9DBDF0",
    "sled track": "#3B342D",
    "sled wood": "#DDB57B",
}
THEMES = {"light": LIGHT, "dark": DARK}

TEXT, MARK = 4.5, 3.0
# (foreground, ground, least contrast)
PAIRS = (
    [
        ("ink", ground, TEXT)
        for ground in ("kraft", "kraft deep", "trail", "paper", "body", "field", "chalk wash", "primer wash", "spruce wash")
    ]
    + [("pencil", ground, TEXT) for ground in ("kraft", "kraft deep", "trail", "paper", "body", "field")]
    + [("chalk", ground, TEXT) for ground in ("kraft", "paper", "body", "field", "kraft deep")]
    + [
        ("on chalk", "chalk", TEXT),
        ("primer", "paper", TEXT),
        ("primer", "kraft", TEXT),
        ("primer", "trail", TEXT),
        ("primer", "field", TEXT),
        ("ochre word", "paper", TEXT),
        ("ochre word", "kraft", TEXT),
        ("ochre word", "trail", TEXT),
        ("spruce", "paper", TEXT),
        ("spruce", "kraft", TEXT),
        ("spruce", "trail", TEXT),
        ("zinc", "paper", TEXT),
        ("ochre", "paper", MARK),
        ("field edge", "field", 2.5),
    ]
    + [(ink, "sled", TEXT) for ink in ("sled ink", "sled pencil", "sled good", "sled bad", "sled mind", "sled chalk")]
    + [(kind, "paper", 2.0) for kind in ("fresh", "grey", "gas", "power", "cargo", "kit", "outside", "frame")]
)


def rgb_of(colour: str) -> tuple[int, int, int]:
    """Red, green and blue of #RRGGBB, 0 to 255."""
    return int(colour[1:3], 16), int(colour[3:5], 16), int(colour[5:7], 16)


def luminance(colour: str) -> float:
    """Relative luminance of #RRGGBB. Source: WCAG 2."""
    channels = [part / 255 for part in rgb_of(colour)]
    linear = [c / 12.92 if c <= 0.03928 else ((c + 0.055) / 1.055) ** 2.4 for c in channels]
    return 0.2126 * linear[0] + 0.7152 * linear[1] + 0.0722 * linear[2]


def contrast(one: str, other: str) -> float:
    """Contrast ratio of two colours, 1 to 21. Source: WCAG 2."""
    high, low = sorted((luminance(one), luminance(other)), reverse=True)
    return (high + 0.05) / (low + 0.05)


def mixed(one: str, other: str, share: float) -> str:
    """A colour between two, ``share`` of the first."""
    parts = [round(a * share + b * (1 - share)) for a, b in zip(rgb_of(one), rgb_of(other), strict=True)]
    return "#{:02X}{:02X}{:02X}".format(*parts)
