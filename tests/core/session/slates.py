"""Slates drawn from the grammar file itself, so that there is no second copy of what may be written."""

import json
import os
from functools import cache
from pathlib import Path
from zlib import crc32

from hypothesis import HealthCheck, Phase, given, seed, settings
from hypothesis import strategies as st
from hypothesis.extra.lark import from_lark
from lark import Lark

from lovrit.core.blocks.kinds import STARTS
from lovrit.core.kept import kept_at
from lovrit.core.session.grammar import grammar_text
from lovrit.core.session.lines import read_block, read_header
from lovrit.core.session.movelines import read_move
from lovrit.core.slate.problem import Unreadable

# Terminals whose pattern is open get short plain text; every other one is drawn from its own pattern.
OPEN = {
    "WORD": st.sampled_from(
        ["squat", "ring", "row", "push-up", "swing", "easy", "laps", "Zürich", "kölner", "side"]
    ),
    "TEXT": st.sampled_from(["Winter hall", "Montag, Halle 4", "x"]),
    "NUM": st.one_of(
        st.integers(1, 60).map(str), st.sampled_from(["0", "2.5", "8.5", "150", "5001", "99999"])
    ),
    "CLOCK": st.one_of(
        st.integers(5, 900).map(lambda s: f"{s // 60}:{s % 60:02d}"), st.just("18:10")
    ),
    "DATE": st.sampled_from(["2026-11-30", "2026-02-31"]),
    "TIMES": st.just("x"),
    "SLOW": st.just("slow"),
    "THEN": st.just("then"),
    "AS_MANY": st.sampled_from(["as many as possible in", "amrap", "AMRAP in"]),
    "X": st.sampled_from(["x", "×", "X"]),
}


@cache
def lines(start: str) -> st.SearchStrategy[str]:
    """Lines of one kind, every terminal parted by a space."""
    grammar = Lark(grammar_text(), parser="lalr", start=start)
    explicit = {}
    for terminal in grammar.terminals:
        if terminal.name.startswith("__"):
            continue
        inner = (
            OPEN[terminal.name]
            if terminal.name in OPEN
            else st.from_regex(terminal.pattern.to_regexp(), fullmatch=True).filter(
                lambda text: "\n" not in text and text.isprintable()
            )
        )
        explicit[terminal.name] = inner.map(lambda text: text + " ")
    return from_lark(grammar, start=start, explicit=explicit).map(
        lambda text: " ".join(text.split())
    )


READ = {"header": read_header, "block": read_block, "move": read_move}


def _means(start: str, text: str) -> bool:
    try:
        return bool(text) and (READ[start](text) is not None or start == "move")
    except Unreadable:
        return False


def _pool(start: str) -> tuple[str, ...]:
    """Lines that not only parse but mean something, drawn once for a grammar: drawing from one is slow."""
    rests_on = grammar_text() + Path(__file__).read_text("utf-8")
    kept = kept_at(f"drawn-{start}-{crc32(rests_on.encode()):08x}.json")
    if kept and kept.exists():
        return tuple(line for line in json.loads(kept.read_text("utf-8")) if _means(start, line))
    drawn = _drawn(start)
    if kept:
        part = kept.with_suffix(f".{os.getpid()}")
        part.write_text(json.dumps(drawn), "utf-8")
        part.replace(kept)
    return drawn


def _drawn(start: str) -> tuple[str, ...]:
    found: set[str] = set()

    @seed(2026)
    @settings(
        max_examples=220,
        deadline=None,
        database=None,
        suppress_health_check=list(HealthCheck),
        phases=[Phase.generate],
    )
    @given(lines(start))
    def draw(text: str) -> None:
        if _means(start, text):
            found.add(text)

    draw()
    assert len(found) > 12, f"the grammar yields hardly any {start}"
    found |= set(SAMPLES.get(start, ()))
    return tuple(sorted(found, key=lambda text: (len(text), text)))


def readable(start: str) -> st.SearchStrategy[str]:
    """Lines that not only parse but mean something."""
    return st.sampled_from(POOLS[start])


SAMPLES = {"block": STARTS}
POOLS = {start: _pool(start) for start in READ}  # made before a test draws: one draws in no other


@st.composite
def slates(draw: st.DrawFn) -> str:
    """Whole slates with comments, blank lines and odd spacing between lines that read."""
    text = []
    headers = draw(
        st.lists(readable("header"), max_size=3, unique_by=lambda line: line.split(":")[0].lower())
    )
    slots = [line for line in headers if line.lower().startswith("slot")]
    text += [line for line in headers if line not in slots[1:]]
    for block in draw(st.lists(readable("block"), min_size=1, max_size=4)):
        text.append(block + draw(st.sampled_from(["", "   # a comment", "\t# two  spaces"])))
        for move in draw(
            st.lists(readable("move").filter(lambda line: line != "then"), max_size=3)
        ):
            text.append(
                draw(st.sampled_from(["  ", "\t", "     "]))
                + move
                + draw(st.sampled_from(["", "  # so"]))
            )
        text += draw(st.sampled_from([[], [""], ["", "# alone", ""]]))
    return "\n".join(text)
