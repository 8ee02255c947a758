"""The groups' colours stay apart for every kind of sight, and words stand out from their grounds.

Distances are in OKLab (Ottosson 2020); colour blindness is simulated in linear light (Machado, Oliveira and
Fernandes 2009, severity 1); contrast is that of WCAG 2.2.
"""

import math
import re
from itertools import combinations
from pathlib import Path

import pytest

TOKENS = Path(__file__).parents[2] / "src/lovrit/web/static/styles/_tokens.scss"
COLOURS = dict(re.findall(r"--([\w-]+): (#[0-9a-f]{6});", TOKENS.read_text("utf-8")))
SIGHTS = {
    "usual": ((1, 0, 0), (0, 1, 0), (0, 0, 1)),
    "protanopia": (
        (0.152286, 1.052583, -0.204868),
        (0.114503, 0.786281, 0.099216),
        (-0.003882, -0.048116, 1.051998),
    ),
    "deuteranopia": (
        (0.367322, 0.860646, -0.227968),
        (0.280085, 0.672501, 0.047413),
        (-0.01182, 0.04294, 0.968881),
    ),
    "tritanopia": (
        (1.255528, -0.076749, -0.178779),
        (-0.078411, 0.930809, 0.147602),
        (0.004733, 0.691367, 0.3039),
    ),
}
TO_LMS = (
    (0.4122214708, 0.5363325363, 0.0514459929),
    (0.2119034982, 0.6806995451, 0.1073969566),
    (0.0883024619, 0.2817188376, 0.6299787005),
)
TO_LAB = (
    (0.2104542553, 0.793617785, -0.0040720468),
    (1.9779984951, -2.428592205, 0.4505937099),
    (0.0259040371, 0.7827717662, -0.808675766),
)
Three = tuple[float, ...]


def linear(colour: str) -> Three:
    parts = (int(colour[at : at + 2], 16) / 255 for at in (1, 3, 5))
    return tuple(c / 12.92 if c <= 0.04045 else ((c + 0.055) / 1.055) ** 2.4 for c in parts)


def times(matrix: tuple[tuple[float, ...], ...], vector: Three) -> Three:
    return tuple(sum(a * b for a, b in zip(row, vector, strict=True)) for row in matrix)


def oklab(colour: str, sight: str) -> Three:
    seen = tuple(min(1.0, max(0.0, c)) for c in times(SIGHTS[sight], linear(colour)))
    return times(TO_LAB, tuple(max(0.0, c) ** (1 / 3) for c in times(TO_LMS, seen)))


def contrast(one: str, other: str) -> float:
    lights = sorted(
        sum(w * c for w, c in zip((0.2126, 0.7152, 0.0722), linear(x), strict=True))
        for x in (one, other)
    )
    return (lights[1] + 0.05) / (lights[0] + 0.05)


@pytest.mark.parametrize("sight", SIGHTS)
@pytest.mark.parametrize("ground", ["group", "lit"])
def test_six_groups_stay_apart(sight: str, ground: str) -> None:
    seen = [oklab(COLOURS[f"{ground}-{nth}"], sight) for nth in range(6)]
    apart = [
        sum((a - b) ** 2 for a, b in zip(*pair, strict=True)) ** 0.5
        for pair in combinations(seen, 2)
    ]
    assert min(apart) >= 0.16


def hue(colour: str) -> float:
    _, a, b = oklab(colour, "usual")
    return math.degrees(math.atan2(b, a))


def test_a_group_is_of_one_hue_on_paper_and_on_the_board() -> None:
    for nth in range(6):
        off = hue(COLOURS[f"group-{nth}"]) - hue(COLOURS[f"lit-{nth}"])
        assert abs((off + 180) % 360 - 180) <= 20, nth


@pytest.mark.parametrize(
    ("words", "ground", "least"),
    [
        ("ink", "paper", 7),
        ("ink-soft", "paper", 4.5),
        ("ink-soft", "paper-deep", 4.5),
        ("stop", "paper", 4.5),
        ("chalk", "board", 7),
        ("chalk-soft", "board", 4.5),
        ("chalk-soft", "board-raised", 4.5),
        ("board-stop", "board", 4.5),
        ("signal", "board", 4.5),
        *[(f"group-{nth}", "paper", 3) for nth in range(6)],
        *[(f"lit-{nth}", "board", 3) for nth in range(6)],
        *[("on-lit", f"lit-{nth}", 4.5) for nth in range(6)],
        *[(f"on-{nth}" if nth in (2, 3) else "paper", f"group-{nth}", 4.5) for nth in range(6)],
    ],
)
def test_words_stand_out(words: str, ground: str, least: float) -> None:
    assert contrast(COLOURS[words], COLOURS[ground]) >= least
