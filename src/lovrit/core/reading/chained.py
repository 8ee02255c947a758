"""Figures that are one: a pair, a range, a list; the unit behind the last one holds for all."""

from collections.abc import Iterator

from lovrit.core.reading.figured import MINUTE_S, SECONDS, short
from lovrit.core.reading.token import Figure, Form, Token


def joined(tokens: list[Token]) -> Iterator[Token]:
    """Figures that are one: 40/20, 8-12, 21-15-9; the unit behind the last one holds for all."""
    at = 0
    while at < len(tokens):
        size, sign = _chain(tokens, at)
        if size < 2:
            yield tokens[at]
            at += 1
            continue
        chain = tokens[at : at + 2 * size - 1 : 2]
        yield _one(chain, sign)
        at += 2 * size - 1


def _chain(tokens: list[Token], at: int) -> tuple[int, str]:
    """How many figures are joined from here on by one sign; none where one alone is another thing."""
    first = tokens[at]
    if not first.figure or first.figure.form != "one" or first.kind in ("day", "rhythm", "odd"):
        return 1, ""
    sign = tokens[at + 1].kind if at + 1 < len(tokens) else ""
    if sign not in ("/", "-"):
        return 1, ""
    if sign == "-" and tokens[at + 1].start > first.end and _follows(tokens, at + 1):
        return 1, ""  # 10 -2: down by two
    size, end = 1, at
    while (
        end + 2 < len(tokens)
        and tokens[end + 1].kind == sign
        and _goes_with(tokens[end], tokens[end + 2])
        and not (
            sign == "-"
            and tokens[end + 1].start > tokens[end].end
            and tokens[end].kind != tokens[end + 2].kind
        )
    ):
        end, size = end + 2, size + 1
    spaced = tokens[at + 1].start > first.end
    if size == 2 and sign == "-" and spaced and not _climbs(first, tokens[at + 2]):
        return 1, ""  # “emom 20 - 5 exercises” is two things
    if (
        size == 2
        and sign == "-"
        and spaced
        and end + 1 < len(tokens)
        and tokens[end + 1].kind in ("name", "word")
    ):
        return 1, ""  # “row 500 - 10 burpees” is two things
    return size, sign


def _climbs(one: Token, other: Token) -> bool:
    """Whether the second figure is the larger one: a range."""
    low, high = (each.figure.said[0] if each.figure else "0" for each in (one, other))
    return float_of(low) < float_of(high)


def _follows(tokens: list[Token], at: int) -> bool:
    """Whether a figure stands close behind a sign."""
    after = tokens[at + 1] if at + 1 < len(tokens) else None
    return bool(after and after.figure and after.start == tokens[at].end)


def _goes_with(one: Token, other: Token) -> bool:
    if not other.figure or other.figure.form != "one" or other.kind in ("day", "rhythm", "odd"):
        return False
    return one.kind in ("count", other.kind)


def _one(chain: list[Token], sign: str) -> Token:
    figures = [one.figure for one in chain if one.figure]
    last = figures[-1]
    said = tuple(one.said[0] for one in figures)
    form: Form = "pair" if sign == "/" else "list"
    if last.measure == "count" and len(said) > 2:
        form = "list"
    if sign == "-" and len(said) == 2 and float_of(said[0]) < float_of(said[1]):
        form = "range"
    seconds: tuple[int, ...] = ()
    if last.measure == "time":
        seconds = tuple(_seconds(one, last, chain[-1].kept) for one in figures)
        said = tuple(map(short, seconds))
    figure = Figure(last.measure, form, said, last.unit, seconds)
    return Token(f"{last.measure}_{form}", chain[0].start, chain[-1].end, "", figure)


def float_of(said: str) -> float:
    """A figure as it is compared; a time by its seconds."""
    if ":" in said:
        minutes, seconds = said.split("/", maxsplit=1)[0].split(":")[:2]
        return int(minutes) * 60 + int(seconds)
    return float(said)


def _seconds(figure: Figure, last: Figure, unit: str) -> int:
    """A bare figure before one with a unit has that unit; before a time of the clock, minutes where that is whole."""
    if figure.seconds:
        return figure.seconds[0]
    minutes = last.seconds[0] % MINUTE_S == 0 and last.seconds[0] >= MINUTE_S
    one = SECONDS[unit] if unit else MINUTE_S if minutes else 1
    return round(float(figure.said[0]) * one)
