"""The options that follow a block's first words, in any order.

Each option knows the fields it sets and the kinds of block it may stand on.
"""

from collections.abc import Callable
from typing import Any

from lovrit.core.session.figures import Figure, column, figure, find, seconds, span, tokens, trees, whole
from lovrit.core.session.grammar import Node
from lovrit.core.session.model import Effort, Heart, HeartOf, Ladder, Pace
from lovrit.core.session.problem import Unreadable

PAIRED = frozenset({"rotate", "sets", "intervals"})
WITH_REST = frozenset({"repeats", "quality", "strength"})
ANY = frozenset({*PAIRED, *WITH_REST, "every", "amrap", "for-time", "hold-ladder", "tempo", "build", "steady", "rest"})

Fields = dict[str, Any]
HEART_OF: dict[str, HeartOf] = {"beats": "bpm", "reserve": "reserve", "highest": "max", "threshold": "threshold"}


def effort(node: Node) -> Effort:
    """An effort from 0 to 10, or a range of efforts."""
    low, high = span(node, "effort")
    if high > 10:
        raise Unreadable("Effort goes from 0 to 10.", column(node), ("an effort from 0 to 10",))
    return Effort(low=low, high=high)


def heart(node: Node) -> Heart:
    """A heart-rate target; a single figure in beats means three either way."""
    of = HEART_OF[str(node.data)]
    low, high = span(node, "target")
    if of == "threshold":
        low = -low
    elif of == "bpm" and low == high:
        low, high = low - 3, high + 3
    most = {"bpm": 240, "reserve": 110, "max": 110, "threshold": 40}[of]
    if high > most or (of == "bpm" and low < 30):
        raise Unreadable("No heart is asked for that.", column(node), ("a heart rate such as 150-162",))
    return Heart(of=of, low=low, high=high)


def _at(node: Node) -> tuple[Fields, list[Figure]]:
    children = trees(node)
    efforts = tuple(effort(child) for child in children)
    names = ["effort", *(f"effort {nth}" for nth in range(1, len(children) + 1))][len(children) > 1 :]
    return {"efforts": efforts}, [
        one for name, child in zip(names, children, strict=False) for one in _ends(name, child)
    ]


def _ends(name: str, node: Node) -> list[Figure]:
    """The figures of an effort: one, or where a range begins and ends."""
    found = tokens(node, "NUM")
    said = [name] if len(found) == 1 else [f"{name} from", f"{name} to"]
    return [figure(one, token, float(token), timed=False) for one, token in zip(said, found, strict=True)]


def _rest(node: Node) -> tuple[Fields, list[Figure]]:
    fields: Fields = {}
    figures: list[Figure] = []
    for part in trees(node):
        inner = trees(part)[0]
        if part.data == "rest_time":
            new: Fields = {"rest_s": seconds(inner)}
            figures.append(figure("rest", inner, new["rest_s"]))
        elif part.data == "rest_at":
            new = {"rest_effort": effort(inner)}
        else:
            new = {"rest_heart": heart(inner)}
        _once(fields, new, part)
        fields.update(new)
    return fields, figures


def _timed(field: str, name: str, added: str | None = None) -> Callable[[Node], tuple[Fields, list[Figure]]]:
    def read(node: Node) -> tuple[Fields, list[Figure]]:
        inner = trees(node)[0]
        fields: Fields = {field: seconds(inner)}
        if added and tokens(node, "ADDED"):
            fields[added] = True
        return fields, [figure(name, inner, fields[field])]

    return read


def _flag(field: str) -> Callable[[Node], tuple[Fields, list[Figure]]]:
    return lambda _node: ({field: True}, [])


def _ladder(node: Node) -> tuple[Fields, list[Figure]]:
    start, step = (whole(token, "reps", most=500) for token in tokens(node, "NUM"))
    return {"ladder": Ladder(start=start, step=step)}, []


def _pace(node: Node) -> tuple[Fields, list[Figure]]:
    low, high = span(node, "pace")
    return {"pace": Pace(low=low, high=high)}, []


def _score(node: Node) -> tuple[Fields, list[Figure]]:
    return {"score": str(node.children[0]).split()[-1].lower()}, []


# option: (how it is said, the kinds it may stand on, how it is read)
OPTIONS: dict[str, tuple[str, frozenset[str], Callable[[Node], tuple[Fields, list[Figure]]]]] = {
    "at": ("at", ANY, _at),
    "heart_at": ("heart", ANY - {"rest"}, lambda node: ({"heart": heart(trees(node)[0])}, [])),
    "rest_opt": ("rest", PAIRED | WITH_REST | {"every", "hold-ladder"}, _rest),
    "break_opt": ("break", frozenset({"rotate"}), _timed("break_s", "break", "break_added")),
    "change_opt": ("change", frozenset({"sets", "strength"}), _timed("change_s", "change", "change_added")),
    "drop_last": ("drop last rest", PAIRED | WITH_REST, _flag("drop_last_rest")),
    "lead_in": ("lead-in", PAIRED | {"repeats"}, _timed("lead_in_s", "lead-in")),
    "pace": ("pace", ANY - {"rest"}, _pace),
    "score": ("score", frozenset({"repeats"}), _score),
    "least": ("least", PAIRED, _timed("least_s", "least")),
    "most": ("most", PAIRED, _timed("most_s", "most")),
    "half_start": ("half start at", frozenset({"every"}), _timed("half_start_s", "half start")),
    "partners": ("partners alternate", frozenset({"amrap"}), _flag("partners")),
    "ladder": ("ladder", frozenset({"amrap"}), _ladder),
    "cap": ("cap", frozenset({"for-time", "quality"}), _timed("cap_s", "cap")),
    "up_down": ("up and down", frozenset({"tempo"}), _flag("up_and_down")),
}


def read_options(kind: str, nodes: list[Node]) -> tuple[Fields, list[Figure]]:
    """The fields that a block's options set, whatever their order.

    Raises:
        Unreadable: for an option given twice, or one that this kind of block doesn't have.
    """
    fields: Fields = {}
    figures: list[Figure] = []
    for node in nodes:
        said, kinds, read = OPTIONS[node.data]
        if kind not in kinds:
            raise Unreadable(f"“{said}” does not go with this kind of block.", column(node))
        new, shown = read(node)
        if kind in PAIRED | {"every", "hold-ladder"} and "rest_s" in new:
            raise Unreadable("The rest is already written.", column(node), ("rest heart 126 at 4",))
        _once(fields, new, node)
        fields.update(new)
        figures += shown
    return fields, figures


def _once(fields: Fields, new: Fields, node: Node) -> None:
    if fields.keys() & new.keys():
        raise Unreadable("This is written twice on the line; one of them has to go.", column(node))


def first(node: Node, data: str) -> Node:
    """The branch with this name, which the grammar has made sure of."""
    found = find(node, data)
    assert found is not None
    return found
