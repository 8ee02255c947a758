"""A line put together from left to right: what none of the roles took are tasks, notes, or figures that are left."""

import re
from dataclasses import replace

from lovrit.core.reading.figured import time_of
from lovrit.core.reading.giving import GOING, LONGEST_REST_S, Role, clocked, seconds_in
from lovrit.core.reading.line import Left, Said, Task, amount_of
from lovrit.core.reading.said import Taken
from lovrit.core.reading.token import ENDS, Figure, Token
from lovrit.core.reading.vocabulary import labels, plain, prose, signals, units

# pieces that say nothing of their own where no way of saying took them
SILENT = frozenset({
    "SECTION", "STATIONS", "LADDER", "PYRAMID", "ALTERNATING", "ODD", "EACH", "ALL",
})  # fmt: skip
# and those that are dropped before a name, but may stand inside one
WORDS_OF_ONE = frozenset({
    "X", "OF", "FOR", "WITH", "ELL", "sign", "±", "=", "#", "°", '"', "'", "~", "*", "%", "ON", "HARD", "BACK", "TO",
    "AFTER", "REP", "NEEDED", "ADD", "BY", "EVERY", "MAX", "SHARE", "OR", "MAL",
})  # fmt: skip
OF_A_TASK = frozenset({"sided", "counted", "most"})
STOPS = frozenset({"@", "AT", "THEN", "AND"})
HUNDREDS, EACH_SIDE = 100, ", each side"
THOUSAND = 1000  # nobody means so many reps without being asked
SAID_OF = frozenset({"word", "name", "count"})  # what can stand behind “every time”
COUNTED = frozenset(
    {"SET", "ROUND", "REP", "MINUTE"}
)  # words of a count, which no move is called alone
TRAILING = frozenset({"OF", "FOR", "ON", "X", "OR", "WITH", "TO", "AND"})
FIGURED, FEW = re.compile(r"\b([1-4])-"), ("one", "two", "three", "four")
CALORIES = ("cal ", "cals ", "calorie ", "calories ")
CLOCK = frozenset({"each", "work", "pair"})
HEADING = frozenset({"times", "sets", "work", "pair", "far", "scheme", "works"})


def build(said: Said, text: str, items: list[Taken]) -> None:
    """Put what the pieces say into a line."""
    _Builder(said, text).build(items)


def _abbreviates(token: Token, after: Token | None) -> bool:
    """Whether a full stop ends no sentence: a small letter follows it."""
    return bool(
        after and after.kind not in ENDS and after.start > token.end and after.text[:1].islower()
    )


class _Builder:
    def __init__(self, said: Said, text: str) -> None:
        self.said, self.text = said, text
        self.loose: list[Figure] = []
        self.share = False
        self.other = False  # what comes next is another way of the move before
        self.depth = 0  # of brackets
        self.easy = False  # whether what was named last was said to be easy
        self.resting = False  # what is named next is done in the rest
        self.of_all = False  # whether “each side” stands before all that it is said of
        self.listed = False  # whether the name of a move follows behind a comma
        self.begun = False  # whether words stood before anything was said of the block
        self.said_since = False  # whether something was said of the block since its last move
        self.rests: list[
            tuple[int, str]
        ] = []  # behind how many tasks a rest was said, and how long
        self._clear()

    def _clear(self) -> None:
        self.parts: list[Token] = []
        self.after: list[Token] = []  # words behind a name and its amount: how it is done
        self.amount: Figure | None = None
        self.figures: list[Token] = []  # the amount as it was written
        self.most = self.noting = self.aside = self.often = self.amount_behind = False
        self.marks: list[str] = []

    def build(self, items: list[Taken]) -> None:
        """Take all pieces."""
        for nth, item in enumerate(items):
            if item.roles or item.tokens[0].kind in SILENT:
                self._roles(item)
            else:
                self._piece(
                    item.tokens[0], items[nth + 1].tokens[0] if nth + 1 < len(items) else None
                )
        self._end()
        if self.of_all:
            self.said.tasks = [
                replace(one, marks=(*one.marks, EACH_SIDE)) for one in self.said.tasks
            ]
        self._in_turn()
        if {"amrap", "total"} <= self.said.roles.keys() and any(
            one.most for one in self.said.tasks
        ):
            self.said.left.append(
                Left(self.said.roles["total"], "second")
            )  # the most of one of several
        self._without_title()
        self._settle()
        if (
            "SUPERSET" in {one.kind for item in items for one in item.tokens}
            and len(self.said.tasks) > 1
        ):
            rest = self.said.roles.get("rest") or self.said.roles.get("within")
            self.said.left += [Left(f"rest {rest}", "superset")] if rest else []

    def _in_turn(self) -> None:
        """Rests that stand behind each of several things are lines of their own among them."""
        roles, tasks = self.said.roles, self.said.tasks
        places = [at for at, _ in self.rests]
        if len(places) < 2 or len(set(places)) < len(places) or not 0 < min(places) < len(tasks):
            return
        if not all(":" in said for _, said in self.rests):
            return
        work = roles.get("work")
        if work and tasks[0].amount is None:
            tasks[0] = replace(tasks[0], amount=time_of(seconds_in(work)))
            del roles["work"]
            roles["rounds"] = roles.pop("times", "1")
        for at, said in reversed(self.rests):
            tasks.insert(at, Task("rest", time_of(seconds_in(said))))
        for name in ("rest", "between"):
            roles.pop(name, None)

    def _without_title(self) -> None:
        """A word that no move is called, before moves that are all counted, only says what kind of work it is."""
        tasks = self.said.tasks
        if (
            len(tasks) < 2
            or not self.said.roles
            or tasks[0].known
            or tasks[0].amount
            or tasks[0].marks
        ):
            return
        counted = len(tasks) > 2 and all(one.amount or one.most for one in tasks[1:])
        if counted or self.begun:
            self.said.notes.append(tasks.pop(0).name)

    # what the ways of saying took

    def _roles(self, item: Taken) -> None:
        if self.aside:
            self.parts += item.tokens
            return
        if self.noting:
            self._end()
        names = {role.name for role in item.roles}
        if "period" in names and self._goes_on():
            before = [*self.figures, *self.parts] if self.said.tasks else []
            if before:
                self._clear()  # what stands right before is what is done so often
            self._end()
            self.noting = self.aside = True
            self.parts = [*before, *item.tokens]  # a thing on the side, every so often
            return
        for role in item.roles:
            self._role(role, item)
        self.resting = bool({"rest", "pair"} & names) and item.tokens[-1].kind == "ACTIVE"
        kinds = {one.kind for one in item.tokens}
        if "SECTION" in kinds and self._is_heading():
            self._as_note()
        self.said.section = self.said.section or "SECTION" in kinds
        between = "STATIONS" in kinds and bool({"rest", "within"} & self.said.roles.keys())
        self.said.all_ = self.said.all_ or "ALL" in kinds or between
        if "ALTERNATING" in kinds and not item.roles:
            self.said.roles.setdefault("alternating", "")

    def _goes_on(self) -> bool:
        """Whether what is done every so often is only beside what was said: a race, a long stretch of one thing."""
        if {"amrap", "fortime"} & self.said.roles.keys():
            return True
        tasks, seconds = self.said.tasks, self.amount.seconds if self.amount else ()
        long = tasks[0].seconds if len(tasks) == 1 else seconds[0] if seconds and not tasks else 0
        named = bool(self.parts or tasks)
        return named and not self.said.roles and long >= LONGEST_REST_S

    def _role(self, role: Role, item: Taken) -> None:
        if role.name in ("mark", "side"):
            self._mark(f", {role.value}" if role.name == "side" else role.value)
        elif role.name == "effort" and self.parts and not HEADING & self.said.roles.keys():
            self._mark(f"at {role.value}")
        elif role.name == "note":
            self.said.notes.append(role.value)
        elif role.name == "left":
            unsure = next((one.value for one in item.roles if one.name == "unsure"), "")
            figure = next((one.figure for one in item.tokens if one.figure), None)
            self.said.left.append(Left(role.value, unsure, figure, self._at()))
        elif role.name in OF_A_TASK:
            self._of_task(role)
        elif role.name == "task":
            self.said.tasks.append(Task(role.value.lower()))
        elif role.name != "unsure":
            self._said(role)

    def _of_task(self, role: Role) -> None:
        """A count that stands behind a move: its reps, or those of a set; of each side; as many as one can."""
        if role.name == "counted" and "sets" in self.said.roles and "reps" not in self.said.roles:
            self._said(Role("reps", f"{role.value} reps"))
            return
        self._end()
        last = self.said.tasks[-1] if self.said.tasks else None
        figure = Figure("count", "one", (role.value,)) if role.value else None
        if last is None or last.amount or last.most:
            self.said.left += [Left(role.value, "", figure, self._at())] if last is None else []
            self.said.notes += [f"{role.value} each side"] if last and role.name == "sided" else []
            return
        marks = (*last.marks, ", each side") if role.name == "sided" else last.marks
        self.said.tasks[-1] = replace(last, amount=figure, most=role.name == "most", marks=marks)

    def _said(self, role: Role) -> None:
        roles, named = self.said.roles, bool(self.parts)
        self.said_since = bool(self.said.tasks or self.parts)
        if role.name != "around" or self.parts:
            self._end()
        if role.name == "rest":
            self.rests.append((len(self.said.tasks), role.value))
        if roles.get(role.name, role.value) == role.value:
            roles[role.name] = role.value
        elif role.name == "pair":
            roles["pair"] += f" {role.value}"
        elif self._is_longer_rest(role):
            roles["between"] = role.value
        elif role.name == "reps" and "together" in roles:
            self._own_reps(role.value, named)
        else:
            self.said.again.append(role)

    def _is_longer_rest(self, role: Role) -> bool:
        """Whether a second rest is said, of sets or of rounds."""
        nested = role.name == "within" and "outer" in self.said.roles
        return (role.name == "rest" or nested) and "between" not in self.said.roles

    def _own_reps(self, said: str, named: bool) -> None:
        """Reps of the second of a pair: of the move before them, or of the one that follows."""
        figure = Figure("count", "one", (said.removesuffix(" reps"),))
        if named and self.said.tasks:
            self.said.tasks[-1] = replace(self.said.tasks[-1], amount=figure)
        else:
            self.amount = figure

    def _at(self) -> int:
        """The task that a thing stands by."""
        return len(self.said.tasks) - (0 if self.parts else 1)

    def _mark(self, mark: str) -> None:
        if self.parts or self.amount:
            self.marks.append(mark)
        elif self.said.tasks:
            last = self.said.tasks[-1]
            self.said.tasks[-1] = replace(last, marks=(*last.marks, mark))
        elif mark == EACH_SIDE and "scheme" in self.said.roles:
            self.of_all = True
        else:
            self.said.marks.append(mark)

    # what they left

    def _piece(self, token: Token, after: Token | None) -> None:
        if token.kind in ENDS or token.kind in STOPS:
            self.resting = False
            self._sign(token, after)
        elif self.resting:
            self.said.notes.append(token.text)
        elif token.kind == "WHILE" and not self.noting:
            self._end()
            self.said.left.append(Left(token.text, "while"))
            self.noting, self.parts = True, [token]
        elif token.kind == "EACH_TIME" and after is not None and after.kind in SAID_OF:
            self._end()
            self.noting = self.aside = True
            self.parts = [token]
        elif token.figure:
            self._easily(after)
            self._figure(token)
        else:
            self._word(token, after)

    def _word(self, token: Token, after: Token | None) -> None:
        """A word of a name, or a small one before it or behind it."""
        begins = token.kind == "BACK" and self.amount and after and after.kind == "word"
        if token.kind in WORDS_OF_ONE and not self.parts and not begins:
            self._first(token)
        elif token.kind == "X":
            self.often = True
        elif self.parts and self.amount and self.amount_behind:
            self.after.append(token)
        else:
            self.parts.append(token)

    def _easily(self, after: Token | None) -> None:
        """“Easy 30 min run”: how it is done, before its length and its name."""
        how = [one.text for one in self.parts if one.kind == "ACTIVE" and one.kept not in GOING]
        if how and len(how) == len(self.parts) and after and after.kind == "name":
            self.said.notes += how
            self.parts, self.easy = [], True

    def _sign(self, token: Token, after: Token | None) -> None:
        """What stands between things, or inside one: a colon behind a heading, a bracket, an “and”, an abbreviation."""
        if self.aside and token.kind == ":":
            self.parts.append(token)
        elif token.kind == ":" and self._is_part():
            assert self.amount
            time = clocked(self.amount.seconds[0])
            self.said.roles |= {"around": plain(self.parts[0].text), "time": time}
            self._clear()
        elif token.kind == ":" and (self._is_heading(after) or self._is_name_of_all(after)):
            self._as_note()
        elif token.kind == "." and _abbreviates(token, after):
            pass
        elif token.kind == "AND" and not self._parts_here(after):
            self.parts.append(token)
        else:
            self.listed = token.kind == "," and after is not None and after.kind == "name"
            self._end()
            self.listed = False
            self.noting = token.kind in ("@", "AT")
            self.depth = {"(": 1, ")": 0}.get(token.kind, self.depth)

    def _first(self, token: Token) -> None:
        """A small word before a name."""
        self.most = self.most or token.kind == "MAX"
        self.share = self.share or token.kind == "SHARE"
        self.other = self.other or (token.kind == "OR" and bool(self.said.tasks))

    def _is_heading(self, after: Token | None = None) -> bool:
        """Whether words before a colon only say what follows: no move that the library knows whole, and no figure."""
        whole = all(one.kind == "name" for one in self.parts) and not (
            after and after.kind == "AROUND"
        )
        return bool(self.parts) and not (whole or self.amount or self.said.roles or self.said.tasks)

    def _is_part(self) -> bool:
        """“15 min skill: …”: minutes before what a stretch is called."""
        minutes = self.amount is not None and bool(self.amount.seconds) and not self.amount_behind
        named = len(self.parts) == 1 and plain(self.parts[0].text) in labels()
        return minutes and named and not (self.said.roles or self.said.tasks)

    def _is_name_of_all(self, after: Token | None) -> bool:
        """“The hundreds (100s): …”: a figure in the plural behind words that name no move, before what is counted."""
        plural = self.amount and self.amount_behind and self.amount.seconds
        hundreds = bool(plural and self.amount and self.amount.seconds[0] % HUNDREDS == 0)
        first = not (self.said.roles or self.said.tasks)
        unknown = bool(self.parts) and all(one.kind == "word" for one in self.parts)
        return hundreds and first and unknown and bool(after and after.kind == "count")

    def _as_note(self) -> None:
        self.said.notes.append(self.text[self.parts[0].start : self.parts[-1].end])
        self._clear()

    def _parts_here(self, after: Token | None) -> bool:
        """Whether an “and” stands between two things: before a figure, or a name behind a whole name."""
        if after is None or after.figure or self.marks or not self.parts:
            return True
        return after.kind == "name" and all(
            one.kind in ("name", "word", "KIT") for one in self.parts
        )

    def _figure(self, token: Token) -> None:
        assert token.figure
        if self.noting:
            self.parts.append(token)
        elif token.kind == "odd":
            self.said.left.append(Left(token.text, "odd", token.figure))
        elif token.kind.startswith("size"):
            self.said.notes.append(token.text)
        elif self.parts and self.amount is None and self._label(token):
            pass
        elif self._is_load(token):
            self.said.left.append(Left(token.text, "load", token.figure, self._at()))
        elif self.amount is None:
            self.amount, self.amount_behind = token.figure, bool(self.parts)
            self.figures = [token]
        else:
            unsure = "rounds" if self.often else "second"
            self.said.left.append(Left(token.text, unsure, token.figure, self._at()))

    def _is_load(self, token: Token) -> bool:
        """Whether a bare figure stands behind the name of sets that have their reps: it is no count of it."""
        bare = token.kind == "count" and bool(token.figure) and self.amount is None
        return bare and bool(self.parts) and {"sets", "reps"} <= self.said.roles.keys()

    def _label(self, token: Token) -> bool:
        """A word for a stretch before its minutes: “skill 12 min handstand practice”."""
        word = plain(" ".join(one.text for one in self.parts))
        if token.kind == "time" and word in labels() and not self.said.roles and token.figure:
            self.said.roles |= {"around": word, "time": clocked(token.figure.seconds[0])}
            self.parts = []
            return True
        return False

    def _end(self) -> None:
        """End the task that is being read."""
        after = self.after
        parts, amount, most, marks, noting = (
            self.parts,
            self.amount,
            self.most,
            self.marks,
            self.noting,
        )
        self._clear()
        if after:
            self.said.notes.append(self.text[after[0].start : after[-1].end])
        while parts and parts[-1].kind in TRAILING:
            parts = parts[:-1]
        if noting and parts:
            self.said.notes.append(self.text[parts[0].start : parts[-1].end])
        elif len(parts) == 1 and self._is_no_move(parts[0], amount):
            pass
        elif parts:
            self._named(parts, amount, most, marks)
        elif amount or most:
            self._unnamed(amount, most, marks)
        else:
            for mark in marks:
                self._mark(mark)

    def _believed(self, amount: Figure | None, task: int) -> Figure | None:
        """An amount; so many reps as nobody means are asked about."""
        if amount is None or amount.measure != "count" or (amount.number or 0) < THOUSAND:
            return amount
        self.said.left.append(Left(amount.own, "many", amount, task))
        return None

    def _is_no_move(self, word: Token, amount: Figure | None) -> bool:
        """A word behind things to do that is none: how the last one is done (easy, slow), or a rest among stations."""
        if not self.said.tasks:
            return False
        if word.kind == "REST" and {*CLOCK, "period"} & self.said.roles.keys():
            self.said.tasks.append(Task("rest", amount, known=True, whole=True))
            return True
        how = word.kind in ("ACTIVE", "HARD") and amount is None and word.kept not in GOING
        self.said.notes += [word.text] if how else []
        return how

    def _named(
        self, parts: list[Token], amount: Figure | None, most: bool, marks: list[str]
    ) -> None:
        self.easy = False
        name, more = self._name(parts)
        known = any(one.kind == "name" or one.named for one in parts)
        whole = all(one.kind == "name" or one.named for one in parts)
        if all(one.kind in COUNTED for one in parts) and not amount:
            self.said.notes.append(name)
            return None
        self.begun = self.begun or not (self.said.roles or self.said.tasks)
        if self.other and self.said.tasks:
            self.other = False
            return self._mark(f", or {name}")
        if len(name) == 1:
            return None
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
        within = self.listed and len(parts) == 1 and plain(name) not in prose()
        within = within and any(one.known for one in self.said.tasks)
        closing = self.said_since and plain(name) in labels()  # “…, 2 min between rounds, stretch”
        if (
            amount is None
            and not (most or within)
            and (closing or (not known and self._is_note(parts)))
        ):
            said = self.text[parts[0].start : parts[-1].end]
            self.said.notes.append(" ".join((said, *(one.strip("@ ") for one in marks))))
            return None
        if most and name.startswith(CALORIES):
            self.said.notes.append(f"max {name.split()[0]}")
            name = name.split(" ", 1)[1]
        amount = self._believed(amount, len(self.said.tasks))
        if self.share:
            name, amount = f"share {amount_of(amount) + ' ' if amount else ''}{name}", None
        self.said.tasks.append(
            Task(name, amount, (*more, *marks), most, known, whole, self._is_easy(parts))
        )
        return None

    def _is_easy(self, parts: list[Token]) -> bool:
        """Whether it was said to be easy, or is a way to recover."""
        return self.easy or parts[0].kind == "ACTIVE" or plain(parts[0].text).startswith("easy ")

    def _is_note(self, parts: list[Token]) -> bool:
        """Words beside a heading that name no move."""
        words = [plain(one.text) for one in parts]
        counted = any(one.known and one.amount for one in self.said.tasks) and bool(self.said.roles)
        behind = any(one.known for one in self.said.tasks) and bool(
            self.said.roles.keys() & HEADING
        )
        beside = counted or behind or bool(self.depth and self.said.tasks)
        heading = bool(self.said.roles.keys() - {"around"})
        if heading and words[-1] in signals() and all(one.kind != "name" for one in parts):
            return True
        if beside or any(one in prose() or one in units() for one in words):
            return True
        return heading and all(
            one.kind != "word" or word in labels() for one, word in zip(parts, words, strict=True)
        )

    def _name(self, parts: list[Token]) -> tuple[str, tuple[str, ...]]:
        """The name as the slate has it; what stands behind an “or” as another way, how it is done as a note."""
        at = next((nth for nth, one in enumerate(parts) if one.kind == "OR"), None)
        if at:
            name, more = self._name(parts[:at])
            return name, (*more, f", or {self._name(parts[at + 1 :])[0]}")
        while len(parts) > 1 and parts[-1].kind in ("ACTIVE", "HARD") and parts[-2].kind == "name":
            self.easy = self.easy or parts[-1].kind == "ACTIVE"
            self.said.notes.append(parts[-1].text)
            parts = parts[:-1]
        named = parts[1:] if parts[0].kind == "KIT" else parts
        if named and all(one.kind == "name" for one in named) and any(one.kept for one in named):
            return " ".join(dict.fromkeys(one.kept or one.text for one in parts)).lower(), ()
        said = " ".join(
            self.text[parts[0].start : parts[-1].end].replace("&", " and ").split()
        ).lower()
        return FIGURED.sub(lambda found: f"{FEW[int(found[1]) - 1]}-", said), ()

    def _unnamed(self, amount: Figure | None, most: bool, marks: list[str]) -> None:
        """A figure without a name: of the move before it, calories on any machine, or loose."""
        last = self.said.tasks[-1] if self.said.tasks else None
        amount = self._believed(amount, len(self.said.tasks) - 1) if last else amount
        length = bool(amount and amount.seconds and self.said.roles.keys() & HEADING)
        if amount and amount.measure == "cal" and last is None:
            self.said.tasks.append(
                Task("any machine", amount, tuple(marks), known=True, whole=True)
            )
        elif last and last.amount is None and not last.most and not length:
            self.said.tasks[-1] = replace(
                last, amount=amount, marks=(*last.marks, *marks), most=most
            )
        elif amount:
            self.loose.append(amount)
            self.said.marks += marks

    def _settle(self) -> None:
        """Figures that stand alone: a time is a length, a way to go a way, two figures a work and a rest."""
        roles = self.said.roles
        for figure in self.loose:
            if figure.seconds and figure.form == "one" and "time" not in roles:
                roles["time"] = clocked(figure.seconds[0])
            elif figure.measure == "far" and figure.form == "one" and "once_far" not in roles:
                roles["once_far"] = figure.own
            elif figure.measure == "count" and figure.form == "pair" and "pair" not in roles:
                roles["pair"] = "/".join(figure.said)
            else:
                self.said.left.append(
                    Left(
                        figure.own,
                        "load" if self.said.tasks else "",
                        figure,
                        len(self.said.tasks) - 1,
                    )
                )
