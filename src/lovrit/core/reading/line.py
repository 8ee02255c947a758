"""A line of a message: its label, the roles that it says, its tasks, and what is kept beside."""

import re
from dataclasses import dataclass, field, replace
from typing import NamedTuple

from lovrit.core.reading.said import Role, Taken, clocked, taken
from lovrit.core.reading.token import Figure, Token
from lovrit.core.reading.tokens import cut
from lovrit.core.reading.vocabulary import labels, plain, prose

SHOW = re.compile(r"[*_~`]+(?=\S)|(?<=\S)[*_~`]+|[\U0001F000-\U0001FAFF\u2600-\u27bf\ufe0f\u20e3]")
BULLET = re.compile(
    r"\s*(?:[-*•·–—▪◦☐☑✓✔✅→>➡👉🔥💪⏱🏃]\ufe0f?\s*(?=\S)|\(?\d{1,2}[.)]\s+(?=\D|\d+\s*x\b|\d+\s+\D))+"
)
LETTER = re.compile(
    r"\s*(?:part\s+)?\(?(?P<label>[A-Ha-h]\d?)(?:[.):]\s*|(?<=\d)\s+)(?=\S)", re.IGNORECASE
)
MINUTE = re.compile(
    r"\s*(?P<label>(?:min(?:ute)?\.?\s*#?\d{1,2}|odd|even|(?:un)?gerade|pair|impair|impar)"
    r"(?:\s*(?:min(?:ute)?s?))?)\s*(?:[:.)–-]\s*|\s+)(?=\S)",
    re.IGNORECASE,
)
PLACE = re.compile(
    r"\s*(?:station|stn|ex(?:ercise)?|atelier|estacion)\.?\s*\d{1,2}\s*[:.)–-]\s*", re.IGNORECASE
)
ENDS = frozenset(",+/:().-|")
MANY_WORDS = 6
OFTEN = frozenset({"times", "sets", "work", "pair", "far", "scheme", "works"})


class Left(NamedTuple):
    """What could be two things, or has no place: as written, which role it is unsure of, and whose task it stands by."""

    text: str
    unsure: str = ""
    figure: Figure | None = None
    task: int = 0


@dataclass(frozen=True)
class Task:
    """A thing to do: how much, its name as the slate has it, and the marks behind it."""

    name: str
    amount: Figure | None = None
    marks: tuple[str, ...] = ()
    most: bool = False
    known: bool = False
    whole: bool = False

    def written(self, behind: str = "") -> str:
        """As a line of the slate."""
        said = "max " if self.most else f"{amount_of(self.amount)} " if self.amount else ""
        marks = "".join(one if one.startswith(",") else f" {one}" for one in self.marks)
        return f"{said}{self.name}{behind}{marks}".strip()


def amount_of(figure: Figure) -> str:
    """An amount as the slate writes it; seconds have their unit."""
    if not figure.seconds:
        return figure.own
    if figure.form == "range":
        return f"{'-'.join(str(one) for one in figure.seconds)} s"
    return f"{figure.said[0]} s" if figure.seconds[0] < 60 else clocked(figure.seconds[0])


@dataclass
class Said:
    """What a line says."""

    number: int
    text: str
    inset: bool = False
    bullet: bool = False
    label: str = ""
    roles: dict[str, str] = field(default_factory=dict)
    again: list[Role] = field(default_factory=list)
    tasks: list[Task] = field(default_factory=list)
    marks: list[str] = field(default_factory=list)
    notes: list[str] = field(default_factory=list)
    left: list[Left] = field(default_factory=list)
    figures: int = 0
    words: int = 0
    section: bool = False

    @property
    def says_nothing(self) -> bool:
        """Whether nothing of a block stands in it."""
        return not (self.roles or self.tasks or self.marks or self.left)


# what begins a block where it is said again on the same line
OPENING = frozenset({"sets", "times", "around", "amrap", "period", "scheme", "rounds"})


def read_line(number: int, raw: str) -> list[Said]:
    """What one line of a message says: mostly one thing, or several blocks one after the other."""
    text, inset = SHOW.sub(" ", raw).rstrip(), raw[:1] in (" ", "\t")
    said = Said(number, " ".join(raw.split()), inset)
    text = _unlabelled(said, text, raw)
    tokens = cut(text)
    said.figures = sum(one.figure is not None for one in tokens)
    said.words = sum(one.kind not in ENDS for one in tokens)
    if _is_prose(tokens):
        said.notes.append(said.text.strip("*_ "))
        return [said]
    made = []
    for nth, items in enumerate(_apart(taken(tokens))):
        part = (
            said
            if not nth
            else replace(said, label="", roles={}, again=[], tasks=[], marks=[], notes=[], left=[])
        )
        _Builder(part, text).build(items)
        made.append(part)
    return made


def _apart(items: list[Taken]) -> list[list[Taken]]:
    """A line that says several blocks, at the commas between them."""
    blocks: list[list[Taken]] = [[]]
    opened: set[str] = set()
    for segment in _segments(items):
        said = {role.name for item in segment for role in item.roles} & OPENING
        timed = any(role.name == "time" for item in blocks[-1] for role in item.roles)
        around = "around" in said and opened or ("around" in opened and said and timed)
        together = any(item.tokens[0].kind in ("SUPERSET", "TOGETHER") for item in items)
        again = (said & opened or around) and not together
        if again and blocks[-1]:
            blocks.append([])
            opened = set()
        blocks[-1] += segment
        opened |= said
    return blocks


def _segments(items: list[Taken]) -> list[list[Taken]]:
    """The pieces between commas and full stops, each with the one behind it."""
    made: list[list[Taken]] = [[]]
    for item in items:
        made[-1].append(item)
        if not item.roles and item.tokens[0].kind in (",", "."):
            made.append([])
    return [one for one in made if one]


def _unlabelled(said: Said, text: str, raw: str) -> str:
    """The line without its bullet and its label."""
    bullet = BULLET.match(raw) or BULLET.match(text)
    if bullet:
        said.bullet = True
        text = BULLET.sub("", text, count=1) if BULLET.match(text) else text
    number = re.match(r"\s*\(?(\d{1,2})[.)]\s", raw)
    said.label = number[1] if number else ""
    for pattern in (MINUTE, LETTER, PLACE):
        found = pattern.match(text)
        if found:
            said.label = (found.groupdict().get("label") or said.label).lower()
            said.bullet = said.bullet or pattern is PLACE
            return text[found.end() :]
    return text


def _is_prose(tokens: list[Token]) -> bool:
    """A sentence to people: words that moves don't have, and nothing that is counted."""
    words = [one for one in tokens if one.kind not in ENDS and not one.figure]
    chatty = sum(one.kind == "word" and plain(one.text) in prose() for one in words)
    named = any(one.kind == "name" for one in tokens)
    figures = any(one.figure for one in tokens)
    if any(
        one.kind in ("AMRAP", "EMOM", "FOR_TIME", "RFT", "ROUND", "X", "SET", "CAP")
        for one in tokens
    ):
        return False
    if chatty and not (figures and named):
        return chatty > 1 or len(words) > 2 or not figures and not named
    return len(words) > MANY_WORDS and not named and not figures


class _Builder:
    """A line put together from left to right."""

    def __init__(self, said: Said, text: str) -> None:
        self.said, self.text = said, text
        self.parts: list[Token] = []
        self.amount: Figure | None = None
        self.most = False
        self.marks: list[str] = []
        self.loose: list[Figure] = []
        self.share = False
        self.noting = False
        self.often = False

    def build(self, items: list[Taken]) -> None:
        """Take all pieces."""
        for nth, item in enumerate(items):
            if item.roles or item.tokens[0].kind in (
                "SECTION",
                "STATIONS",
                "LADDER",
                "PYRAMID",
                "ALTERNATING",
                "ODD",
                "EACH",
            ):
                self._roles(item)
            else:
                self._piece(item.tokens[0], items[nth + 1 : nth + 2])
        self._end()
        self._settle()

    def _roles(self, item: Taken) -> None:
        if self.noting:
            self._end()
        if (
            any(role.name == "period" for role in item.roles)
            and {"amrap", "fortime"} & self.said.roles.keys()
        ):
            self._end()
            self.noting, self.parts = True, list(item.tokens)  # a thing on the side, every so often
            return
        for role in item.roles:
            self._role(role, item)
        kinds = {one.kind for one in item.tokens}
        if "SECTION" in kinds:
            self.said.section = True
        if "ALTERNATING" in kinds and not item.roles:
            self.said.roles.setdefault("alternating", "")

    def _role(self, role: Role, item: Taken) -> None:
        if role.name in ("mark", "side"):
            self._mark(f", {role.value}" if role.name == "side" else role.value)
        elif role.name == "effort" and self.parts and not OFTEN & self.said.roles.keys():
            self._mark(f"at {role.value}")
        elif role.name == "note":
            self.said.notes.append(role.value)
        elif role.name in ("left", "unsure"):
            if role.name == "left":
                unsure = next((one.value for one in item.roles if one.name == "unsure"), "")
                figure = next((one.figure for one in item.tokens if one.figure), None)
                self.said.left.append(Left(role.value, unsure, figure, self._at()))
        elif role.name == "task":
            self.said.tasks.append(Task(role.value.lower()))
        elif role.name in self.said.roles and self.said.roles[role.name] != role.value:
            self._twice(role)
        else:
            if role.name != "around" or self.parts:
                self._end()
            self.said.roles[role.name] = role.value

    def _twice(self, role: Role) -> None:
        """A role that is there already: pairs by round, a second rest between rounds, or too much."""
        if role.name == "pair":
            self.said.roles["pair"] += f" {role.value}"
        elif role.name == "rest" and "between" not in self.said.roles:
            self.said.roles["between"] = role.value
        else:
            self.said.again.append(role)

    def _at(self) -> int:
        """The task that a thing stands by."""
        return len(self.said.tasks) - (0 if self.parts else 1)

    def _mark(self, mark: str) -> None:
        if self.parts or self.amount:
            self.marks.append(mark)
        elif self.said.tasks:
            last = self.said.tasks[-1]
            self.said.tasks[-1] = replace(last, marks=(*last.marks, mark))
        else:
            self.said.marks.append(mark)

    def _piece(self, token: Token, after: list[Taken]) -> None:
        if token.kind in ("@", "AT"):
            self._end()
            self.noting = True
            self.parts = []
        elif token.kind in ENDS or token.kind in ("AND", "THEN"):
            self._end()
        elif token.figure:
            self._figure(token)
        elif token.kind == "MAX" and not self.parts:
            self.most = True
        elif token.kind == "SHARE":
            self.share = True
        elif token.kind == "OR":
            self._or(token)
        elif (
            token.kind
            in (
                "X",
                "OF",
                "FOR",
                "ELL",
                "sign",
                "±",
                "=",
                "#",
                "°",
                '"',
                "'",
                "~",
                "*",
                "%",
                "ON",
                "HARD",
            )
            and not self.parts
        ):
            pass
        elif token.kind == "X":
            self.often = True
        else:
            self.parts.append(token)

    def _or(self, token: Token) -> None:
        if self.parts:
            self.parts.append(token)

    def _figure(self, token: Token) -> None:
        assert token.figure
        if self.noting:
            self.parts.append(token)
        elif token.kind in ("odd", "size"):
            if token.kind == "odd":
                self.said.left.append(Left(token.text, "odd", token.figure))
            else:
                self.said.notes.append(token.text)
        elif self.parts and self.amount is None and self._label(token):
            pass
        elif self.amount is None:
            self.amount = token.figure
        else:
            self.said.left.append(
                Left(token.text, "rounds" if self.often else "second", token.figure, self._at())
            )

    def _label(self, token: Token) -> bool:
        """A word for a stretch before its minutes: “skill 12 min handstand practice”."""
        word = plain(" ".join(one.text for one in self.parts))
        if token.kind == "time" and word in labels() and not self.said.roles:
            self.said.roles |= {"around": word, "time": clocked(token.figure.seconds[0])}  # type: ignore[union-attr]
            self.parts = []
            return True
        return False

    def _end(self) -> None:
        """End the task that is being read."""
        parts, amount, most, marks = self.parts, self.amount, self.most, self.marks
        noting = self.noting
        self.parts, self.amount, self.most, self.marks, self.noting = [], None, False, [], False
        while parts and parts[-1].kind in ("OF", "FOR", "ON", "X", "OR"):
            parts = parts[:-1]
        if noting:
            if parts:
                self.said.notes.append(self.text[parts[0].start : parts[-1].end])
            return
        if parts:
            self._named(parts, amount, most, marks)
        elif amount or most:
            self._unnamed(amount, most, marks)
        else:
            for mark in marks:
                self._mark(mark)

    def _named(
        self, parts: list[Token], amount: Figure | None, most: bool, marks: list[str]
    ) -> None:
        name, more = self._name(parts)
        if len(name) == 1:
            return
        known = any(one.kind == "name" or one.named for one in parts)
        if (
            amount
            and amount.measure == "count"
            and amount.form == "pair"
            and len(set(amount.said)) == 1
        ):
            amount, marks = (
                replace(amount, form="one", said=amount.said[:1]),
                [*marks, ", each side"],
            )
        beside = any(one.known for one in self.said.tasks) and self.said.roles.keys() & OFTEN
        if amount is None and not known and (beside or self._is_note(parts)):
            self.said.notes.append(self.text[parts[0].start : parts[-1].end])
            return
        if self.share:
            name, amount, more = (
                f"share {amount_of(amount) + ' ' if amount else ''}{name}",
                None,
                more,
            )
        whole = all(one.kind == "name" or one.named for one in parts)
        self.said.tasks.append(Task(name, amount, (*more, *marks), most, known, whole))

    def _is_note(self, parts: list[Token]) -> bool:
        """Words beside a heading that name no move."""
        if any(plain(one.text) in prose() for one in parts):
            return True
        heading = bool(self.said.roles.keys() - {"around"})
        return heading and all(one.kind != "word" or plain(one.text) in labels() for one in parts)

    def _name(self, parts: list[Token]) -> tuple[str, tuple[str, ...]]:
        """The name as the slate has it; what stands behind an “or” as another way, how it is done as a note."""
        at = next((nth for nth, one in enumerate(parts) if one.kind == "OR"), None)
        if at:
            name, more = self._name(parts[:at])
            other, _ = self._name(parts[at + 1 :])
            return name, (*more, f", or {other}")
        while (
            len(parts) > 1 and parts[-1].kind in ("ACTIVE", "HARD") and parts[-2].kind in ("name",)
        ):
            self.said.notes.append(parts[-1].text)
            parts = parts[:-1]
        foreign = any(one.kind == "name" and one.kept for one in parts)
        if foreign:
            return " ".join(
                one.kept or one.text if one.kind == "name" else one.text for one in parts
            ).lower(), ()
        return " ".join(self.text[parts[0].start : parts[-1].end].split()).lower(), ()

    def _unnamed(self, amount: Figure | None, most: bool, marks: list[str]) -> None:
        """A figure without a name: of the move before it, calories on any machine, or loose."""
        last = self.said.tasks[-1] if self.said.tasks else None
        if amount and amount.measure == "cal" and last is None:
            self.said.tasks.append(
                Task("any machine", amount, tuple(marks), known=True, whole=True)
            )
        elif last and last.amount is None and not last.most:
            self.said.tasks[-1] = replace(
                last, amount=amount, marks=(*last.marks, *marks), most=most
            )
        elif amount:
            self.loose.append(amount)
            self.said.marks += marks

    def _settle(self) -> None:
        """Figures that stand alone: a time is a length, anything else is left."""
        roles = self.said.roles
        for figure in self.loose:
            if figure.seconds and figure.form == "one" and "time" not in roles:
                roles["time"] = clocked(figure.seconds[0])
            elif figure.measure == "far" and "once_far" not in roles:
                roles["once_far"] = figure.own
            elif figure.measure == "count" and figure.form == "pair" and "pair" not in roles:
                roles["pair"] = "/".join(figure.said)
            else:
                self.said.left.append(Left(figure.own, "load", figure, len(self.said.tasks) - 1))
