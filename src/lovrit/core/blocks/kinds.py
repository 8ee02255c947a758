"""All kinds of block, from one tuple: the union that JSON is checked against, and what they bring to the grammar."""

from functools import reduce
from operator import or_
from typing import TYPE_CHECKING, Annotated, NamedTuple

from pydantic import Field

from lovrit.core.blocks.amrap import Amrap
from lovrit.core.blocks.block import Block, Form
from lovrit.core.blocks.build import Build
from lovrit.core.blocks.every import Every
from lovrit.core.blocks.for_time import ForTime
from lovrit.core.blocks.hold_ladder import HoldLadder
from lovrit.core.blocks.intervals import Intervals
from lovrit.core.blocks.options import Option
from lovrit.core.blocks.quality import Quality
from lovrit.core.blocks.rest import Rest
from lovrit.core.blocks.rotate import Rotate
from lovrit.core.blocks.sets import Sets
from lovrit.core.blocks.steady import Steady
from lovrit.core.blocks.strength import Strength
from lovrit.core.blocks.tempo import Tempo
from lovrit.core.slate.words import BETWEEN, HEADER_WORDS, MARKS, NUMBERS, SIGNS, UNIT_TERMS, Word

KINDS: tuple[type[Block], ...] = (
    Steady, Rotate, Sets, Strength, Intervals, Every, Amrap, ForTime, Quality, HoldLadder, Tempo, Build, Rest,
)  # fmt: skip

if TYPE_CHECKING:
    AnyBlock = Block
else:
    AnyBlock = Annotated[reduce(or_, KINDS), Field(discriminator="kind")]


class KindForm(NamedTuple):
    """A form of a block's first words, and the kind that it makes."""

    kind: type[Block]
    form: Form


FORMS: dict[str, KindForm] = {
    form.rule: KindForm(kind, form) for kind in KINDS for form in kind.forms
}
OPTIONS: dict[str, Option] = {
    option.rule: option
    for said in reversed(FORMS.values())
    for option in reversed(said.form.options)
}
STARTS = (
    *(form.sample for kind in KINDS for form in kind.forms if form.sample),
    "cool-down 4:00 at 2",
)


def _unique(words: list[Word]) -> tuple[Word, ...]:
    return tuple({word.key: word for word in words}.values())


# in the order in which an error names what was expected: figures, first words, options, the rest
WORDS: tuple[Word, ...] = _unique(
    [
        *NUMBERS,
        *(word for kind in KINDS for word in kind.words),
        *BETWEEN,
        *(word for said in FORMS.values() for option in said.form.options for word in option.words),
        *SIGNS,
        *UNIT_TERMS,
        *MARKS,
        *HEADER_WORDS,
    ]
)


def block_rules() -> str:
    """The rules of the grammar that the kinds bring: their first words, and the options behind them."""
    heads = [
        f"{grammar} -> {said.form.rule}" for said in FORMS.values() for grammar in said.form.grammar
    ]
    options = [f"{option.grammar} -> {option.rule}" for option in OPTIONS.values()]
    own = [rule for kind in KINDS for rule in kind.rules]
    return "\n".join([f"?head: {_either(heads)}", f"?option: {_either(options)}", *own])


def _either(alternatives: list[str]) -> str:
    return "\n     | ".join(alternatives)
