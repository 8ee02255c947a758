"""The options that follow a block's first words, in any order: how each is said, read and written back.

Those of one kind alone stand in its own file.
"""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, NamedTuple

from lovrit.core.blocks.parts import Pace, read_effort, read_heart, read_over
from lovrit.core.clock import clock, number
from lovrit.core.slate.problem import Unreadable
from lovrit.core.slate.tree import Figure, Node, column, figure, seconds, span, tokens, trees
from lovrit.core.slate.words import Word, word
from lovrit.core.slate.written import whole_amount

Fields = dict[str, Any]


class Read(NamedTuple):
    """The fields that a piece of a line sets, and the figures on it that a hand may change."""

    fields: Fields
    figures: list[Figure]


@dataclass(frozen=True)
class Option:
    """An option: the name of its rule and what that is, what it is called, how it is read off a line, and written.

    ``write`` gives the option's words for a block, or nothing where the block doesn't have it; ``sample`` is what the
    editor completes.
    """

    rule: str
    grammar: str
    said: str
    read: Callable[[Node], Read]
    write: Callable[[Any], str]
    words: tuple[Word, ...] = ()
    sample: str = ""


def once(fields: Fields, new: Fields, node: Node) -> None:
    """Put new fields beside others; an Unreadable where one is there already."""
    if fields.keys() & new.keys():
        raise Unreadable("This is written twice on the line; one of them has to go.", column(node))
    fields.update(new)


def _efforts(node: Node) -> Read:
    children = trees(node)
    many = len(children) > 1
    figures = [
        one
        for nth, child in enumerate(children, 1)
        for one in _ends(f"effort {nth}" if many else "effort", child)
    ]
    return Read({"efforts": tuple(read_effort(child) for child in children)}, figures)


def _ends(name: str, node: Node) -> list[Figure]:
    """The figures of an effort: one, or where a range begins and ends."""
    found = tokens(node, "NUM")
    said = [name] if len(found) == 1 else [f"{name} from", f"{name} to"]
    return [
        figure(one, token, float(token), timed=False)
        for one, token in zip(said, found, strict=True)
    ]


def _rest(node: Node) -> Read:
    fields: Fields = {}
    figures: list[Figure] = []
    for part in trees(node):
        inner = trees(part)[0] if trees(part) else part
        if part.data == "rest_time":
            once(fields, {"rest_s": seconds(inner)}, part)
            figures.append(figure("rest", inner, fields["rest_s"]))
        elif part.data in OWN_RESTS:
            once(fields, OWN_RESTS[str(part.data)](part), part)
        elif part.data == "rest_at":
            once(fields, {"rest_effort": read_effort(inner)}, part)
        else:
            once(fields, {"rest_heart": read_heart(inner)}, part)
    return Read(fields, figures)


def _share(node: Node) -> Fields:
    """One to two is twice as much rest as the work took."""
    work, rest = (float(token) for token in tokens(node, "NUM"))
    if not work or not rest or rest / work > MOST_SHARE:
        raise Unreadable("Say the rest by the work, such as 1:2.", column(node), ("rest 1:2",))
    return {"rest_share": rest / work}


def _rest_over(node: Node) -> Fields:
    over = read_over(tokens(node, "NUM")[0], trees(node)[0])
    return {"rest_over": over, "rest_by": " ".join(map(str, tokens(node, "WORD"))).lower()}


MOST_SHARE = 10
# what a rest is measured by where it is no time: one's own work, or a way to go
OWN_RESTS: dict[str, Callable[[Node], Fields]] = {
    "rest_as_work": lambda _node: {"rest_share": 1.0},
    "rest_share": _share,
    "rest_over": _rest_over,
}


def _rest_by_clock(node: Node) -> Read:
    read = _rest(node)
    if read.fields.keys() & {"rest_share", "rest_over"}:
        raise Unreadable("Here a rest is a time.", column(node), ("rest 1:30",))
    return read


def _rest_by_effort(node: Node) -> Read:
    read = _rest(node)
    if read.fields.keys() & {"rest_s", "rest_share", "rest_over"}:
        raise Unreadable("The rest is already written.", column(node), ("rest heart 126 at 4",))
    return read


def _written_rest(block: Any) -> str:
    """The rest's own time where the first words don't have it, and what is asked of it."""
    parts = [clock(block.rest_s)] if getattr(block, "rest_s", 0) else []
    share, over = getattr(block, "rest_share", None), getattr(block, "rest_over", None)
    parts += ["= work" if share == 1 else f"1:{number(share)}"] if share else []
    parts += [f"{whole_amount(over)} {block.rest_by}"] if over else []
    parts += [f"heart {block.rest_heart}"] if block.rest_heart else []
    parts += [f"at {block.rest_effort}"] if block.rest_effort else []
    return " ".join(["rest", *parts]) if parts else ""


def timed(field: str, name: str, added: str = "") -> Callable[[Node], Read]:
    """How an option with a time is read; ``added`` is the field of a flag behind it."""

    def read(node: Node) -> Read:
        inner = trees(node)[0]
        fields: Fields = {field: seconds(inner)}
        if added and tokens(node, "ADDED"):
            fields[added] = True
        return Read(fields, [figure(name, inner, fields[field])])

    return read


def flag(field: str) -> Callable[[Node], Read]:
    """How an option without a figure is read."""
    return lambda _node: Read({field: True}, [])


def pause(name: str) -> Option:
    """A break or a change, which takes the last rest's place or is added to it."""

    def write(block: Any) -> str:
        seconds_ = getattr(block, f"{name}_s")
        tail = " added" if getattr(block, f"{name}_added") else ""
        return "" if seconds_ is None else f"{name} {clock(seconds_)}{tail}"

    key = name.upper()
    return Option(
        f"{name}_opt", f"{key} time ADDED?", name, timed(f"{name}_s", name, f"{name}_added"), write,
        (word(key, name, f"“{name}” and a time"),), name,
    )  # fmt: skip


def _span_of(node: Node) -> Pace:
    low, high = span(node, "pace")
    return Pace(low=low, high=high)


def _hearts(node: Node) -> Read:
    """A target, or one for each round: the last holds on."""
    first, *later = map(read_heart, trees(node))
    return Read({"heart": first, **({"heart_later": tuple(later)} if later else {})}, [])


AT = Option(
    "at", "AT effort+", "at", _efforts,
    lambda block: "at " + " ".join(map(str, block.efforts)) if block.efforts else "", sample="at",
)  # fmt: skip
HEART = Option(
    "heart_at", "HEART heart+", "heart", _hearts,
    lambda block: " ".join(["heart", *map(str, (block.heart, *block.heart_later))]) if block.heart else "",
    sample="heart",
)  # fmt: skip
PACE = Option(
    "pace", "PACE NUM (DASH NUM)?", "pace", lambda node: Read({"pace": _span_of(node)}, []),
    lambda block: f"pace {block.pace}" if block.pace else "", (word("PACE", "pace", "“pace” and a number"),), "pace",
)  # fmt: skip
REST_WORDS = (Word("EQUALS", '"="', "“= work”", "="), word("WORK", "work"))
REST = Option("rest_opt", "REST rest_part+", "rest", _rest, _written_rest, REST_WORDS, "rest")
REST_BY_CLOCK = Option("rest_opt", "REST rest_part+", "rest", _rest_by_clock, _written_rest)
REST_BY_EFFORT = Option("rest_opt", "REST rest_part+", "rest", _rest_by_effort, _written_rest)
LEAD_IN = Option(
    "lead_in", "LEAD_IN time", "lead-in", timed("lead_in_s", "lead-in"),
    lambda block: f"lead-in {clock(block.lead_in_s)}" if block.lead_in_s else "",
    (word("LEAD_IN", "lead-in", "“lead-in” and a time"),), "lead-in",
)  # fmt: skip
LEAST = Option(
    "least", "LEAST time", "least", timed("least_s", "least"),
    lambda block: f"least {clock(block.least_s)}" if block.most_s is not None and block.least_s else "",
    (word("LEAST", "least", "“least” and a time"),), "least",
)  # fmt: skip
MOST = Option(
    "most", "MOST time", "most", timed("most_s", "most"),
    lambda block: f"most {clock(block.most_s)}" if block.most_s is not None else "",
    (word("MOST", "most", "“most” and a time"),), "most",
)  # fmt: skip
WHEN = Option(
    "when", "WHEN", "when", lambda node: Read({"when": str(node.children[0]).split()[-1].lower()}, []),
    lambda block: f"when {block.when}" if block.when else "",
    (Word("WHEN.4", r"/when[ \t]+(?:all|half|one)\b/i", "“when all”, “when half” or “when one”", "when half"),),
    "when half",
)  # fmt: skip
CAP = Option(
    "cap", "CAP time", "cap", timed("cap_s", "cap"),
    lambda block: f"cap {clock(block.cap_s)}" if block.cap_s else "",
    (word("CAP", "cap", "“cap” and a time"),), "cap",
)  # fmt: skip
DROP_LAST = Option(
    "drop_last", "DROP", "drop last rest", flag("drop_last_rest"),
    lambda block: "drop last rest" if block.drop_last_rest else "", (word("DROP", "drop last rest"),), "drop last rest",
)  # fmt: skip
AIMS = (AT, HEART, PACE)


TOGETHER = Option(
    "together",
    "TOGETHER",
    "together",
    flag("together"),
    lambda block: "together" if block.together else "",
    (word("TOGETHER", "together"),),
    "together",
)
