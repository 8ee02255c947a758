"""A whole message: its lines gathered into blocks, its headers, and what is only told."""

import re
from dataclasses import dataclass, field, replace

from lovrit.core.reading.ahead import (
    is_length_ahead,
    is_part,
    is_part_ahead,
    is_quoted,
    is_times_ahead,
    is_title,
    sounds_like_prose,
)
from lovrit.core.reading.apart import read_line
from lovrit.core.reading.belongs import CLOCKED, OF_ANOTHER, RACES, belongs
from lovrit.core.reading.draft import Draft
from lovrit.core.reading.figured import time_of
from lovrit.core.reading.giving import seconds_in
from lovrit.core.reading.joined import ended, named_behind, of_the_same, raced
from lovrit.core.reading.line import Said, Task
from lovrit.core.reading.retold import (
    WEEK,
    in_brackets,
    in_twos,
    keyed,
    lengths_ahead,
    main_first,
    odd_and_even,
    plainer,
    repeats,
    ways_apart,
)
from lovrit.core.reading.stacked import (
    dated,
    headed_in_turn,
    in_turn,
    lettered,
    numbered,
    of_each,
    sentences,
    stacked,
    timetable,
)
from lovrit.core.reading.token import Figure
from lovrit.core.reading.tokens import cut
from lovrit.core.reading.vocabulary import again_said, labels, plain, turned_round
from lovrit.core.slate.slowly import slowly

HEADERS = ("slot", "people", "setup")
TURNED = frozenset({"pair", "work", "each", "far", "sets", "period"})
RESTS = frozenset({"rest", "within", "between", "needed"})
OF_ONE = re.compile(r"sets?|rounds?|reps?|exercises?|stations?|intervals?|efforts?", re.IGNORECASE)
DIGITS = re.compile(r"\d+")
LONG_SLOT_S = 20 * 60


@dataclass
class Gathered:
    """A message's blocks, in order, its headers, its title, and what is told beside."""

    drafts: list[Draft] = field(default_factory=list)
    headers: dict[str, str] = field(default_factory=dict)
    title: str = ""
    notes: list[str] = field(default_factory=list)


def gather(text: str, by_sentence: bool = False) -> Gathered:
    """The blocks of a message, line by line or sentence by sentence."""
    lines = [
        (nth, raw)
        for nth, line in enumerate(text.split("\n"), 1)
        for apart in (sentences(line) if by_sentence else [line])
        for one in main_first(plainer(slowly(apart)))
        for whole in ways_apart(one)
        for part in odd_and_even(whole)
        for raw in lettered(numbered(part))
        if raw.strip()
    ]
    weeks = [raw.strip(" \t:") for _, raw in lines if WEEK.fullmatch(raw)]
    lines = [one for one in lines if not WEEK.fullmatch(one[1])]
    title = dated(lines)
    lines = lines[1:] if title else lines
    lines = list(in_twos(list(lengths_ahead(in_brackets(list(repeats(list(keyed(lines)))))))))
    lines = list(of_each(in_turn(list(headed_in_turn(lines)))))
    minutes = dict(timetable(lines))
    said = [(number, minutes[number][0] if number in minutes else raw) for number, raw in lines]
    read_ = [one for number, raw in stacked(said) for one in read_line(number, raw)]
    for one in read_:
        if one.number in minutes:
            one.text, told = minutes[one.number][1:]
            one.notes.append(told)
    _as_sent([one for one in read_ if one.number not in minutes], text)
    made = _Gatherer(read_, title).gather()
    made.notes += weeks
    return made


def _as_sent(lines: list[Said], text: str) -> None:
    """Lines as they were sent, where they were put into other words to be read; several that became one stay so."""
    sent = [" ".join(one.split()) for one in text.split("\n")]
    other = {
        one.number
        for one in lines
        if " ".join(one.text.split()) not in sent[one.number - 1]
        and not set(DIGITS.findall(one.text)) - set(DIGITS.findall(sent[one.number - 1]))
    }
    for one in lines:
        one.text = sent[one.number - 1] if one.number in other else one.text


class _Gatherer:
    def __init__(self, lines: list[Said], title: str = "") -> None:
        self.lines = lines
        self.made = Gathered(title=title)
        self.open: Draft | None = None
        self.company: dict[str, str] = {}  # said in the title, of the block that follows
        self.minutes = ""  # said of a part of the evening, before what is done in it

    def gather(self) -> Gathered:
        """Line by line."""
        for nth, line in enumerate(self.lines):
            self._headers(line)
            after = self.lines[nth + 1 :]
            if self._says_of_all(nth, line, after):
                continue
            self._way_in_rounds(line)
            if line.says_nothing:
                self._told(line)
            else:
                self._take(line, after)
        drafts = named_behind(list(ended(self.made.drafts)))
        self.made.drafts = list(raced(list(of_the_same(drafts))))
        return self.made

    def _says_of_all(self, nth: int, line: Said, after: list[Said]) -> bool:
        """Whether a line is no block and no part of one: a title, “then”, with whom, how long, the end."""
        if is_times_ahead(line, after):
            after[0].roles["times"] = line.roles["sets"]
        elif not nth and not self.made.title and is_title(line, len(self.lines)):
            self.made.title = line.text.strip("*_:! ")
            self.company = line.roles
        elif line.text.lower().strip(" :.") in ("then", "dann", "puis", "luego") and self.open:
            self.open.then_at.append(self.open.moves)
        elif (self.open is None and is_part_ahead(line, after)) or is_quoted(line):
            self.made.notes.append(line.text.strip("*_:! "))
        elif self._is_same_again(line):
            self._same_again(line)
        elif line.roles.keys() == {"company"} and not (line.tasks or self.open):
            self.company = line.roles
        elif is_length_ahead(line, after):
            self.open, self.minutes = None, line.roles["time"]
        else:
            return self._says_the_end(line, after)
        return True

    def _says_the_end(self, line: Said, after: list[Said]) -> bool:
        """Whether a line closes all: the rest between the blocks above, or what they end with."""
        if not after and self._is_between_blocks(line):
            self.made.drafts = [
                one for draft in self.made.drafts for one in (_rest_of(line), draft)
            ][1:]
        elif self._is_end(line, after):
            self.open = Draft(roles={"label": line.tasks[0].name}, lines=[line])
            self.made.drafts.append(self.open)
        else:
            return False
        return True

    def _is_same_again(self, line: Said) -> bool:
        """Whether a line says only that what stands above is done again: behind a rest, what stands before that."""
        if turned_round(line.text) is not None:
            return bool(line.roles or line.tasks) and self._above() is not None
        one = line.tasks[0] if len(line.tasks) == 1 else None
        only = one is not None and not (one.amount or line.roles or line.left)
        said = one.name if one and only else line.text if line.says_nothing else ""
        return again_said(said) and self._above() is not None

    def _above(self) -> Draft | None:
        """The last block above with work in it."""
        said = [one for one in self.made.drafts if one.roles.keys() & (TURNED | RACES)]
        return said[-1] if said else None

    def _same_again(self, line: Said) -> None:
        above = self._above()
        assert above
        again = replace(above, roles=dict(above.roles), lines=[line])
        rounds = turned_round(line.text)
        if rounds is not None:
            again.tasks, again.labels = above.tasks[::-1], [""] * len(above.tasks)
            again.roles |= {"rounds": rounds} if rounds else {}
        self.open = again
        self.made.drafts.append(again)

    def _is_between_blocks(self, line: Said) -> bool:
        """Whether a last line is the rest between the blocks above: it says blocks, or they are parts by name."""
        if line.roles.keys() != {"within"} or line.tasks or len(self.made.drafts) < 2:
            return False
        named = all(one.lines and is_part(one.lines[0]) for one in self.made.drafts)
        return named and (line.section or not OF_ONE.search(line.text))

    def _is_both_ends(self, line: Said) -> bool:
        return "ends" in line.roles

    def _both_ends(self, line: Said) -> None:
        """So long easy before and after: a warm-up before the block above, a cool-down behind it."""
        before, behind = (
            Draft(roles={"around": name, "time": line.roles["ends"]}, lines=[line])
            for name in ("warm-up", "cool-down")
        )
        self.made.drafts.insert(max(0, len(self.made.drafts) - 1), before)
        self.made.drafts.append(behind)
        self.open = behind

    def _headers(self, line: Said) -> None:
        alone = not line.roles.keys() - {*HEADERS, "around", "time"}
        found = [name for name in HEADERS if name in line.roles and name not in self.made.headers]
        for name in found if alone else []:
            self.made.headers[name] = line.roles.pop(name)
        if found and alone and not line.roles and not all(one.known for one in line.tasks):
            line.notes, line.tasks = [line.text], [one for one in line.tasks if one.known]
        if not self.made.drafts and "slot" not in self.made.headers:
            self._slot(line)

    def _slot(self, line: Said) -> None:
        """A first line that names no move and says a long time is how long the hall is ours."""
        rest = [one for one in self.lines if one.number > line.number and one.roles]
        ahead = line.text.endswith(":") and line.roles.keys() == {"time"} and not line.tasks
        if ahead and len(rest) > 1 and all(one.inside for one in rest):
            seconds = seconds_in(line.roles["time"])
            if seconds >= LONG_SLOT_S:
                self.made.headers["slot"] = line.roles.pop("time")
            return
        alone = len(line.tasks) == 1 and not line.roles and not line.tasks[0].known
        amount = line.tasks[0].amount if alone else None
        name = plain(line.tasks[0].name) if alone else ""
        if (
            rest
            and amount
            and amount.seconds
            and amount.seconds[0] >= LONG_SLOT_S
            and name not in labels()
        ):
            self.made.headers["slot"] = f"{amount.seconds[0] // 60}:{amount.seconds[0] % 60:02}"
            line.tasks, line.notes = [], [*line.notes, line.tasks[0].name]

    def _told(self, line: Said) -> None:
        """Words that are no part of a block: kept beside the one above, or before all."""
        if (
            line.section
            and line.words == 1
            and self.open
            and self.open.moves
            and self.open.roles.keys() & CLOCKED
        ):
            self.open.tasks.append([Task(plain(line.text).strip(" -*"))])
            self.open.labels.append(line.label)
            self.open.lines.append(line)
            return
        if line.section and not line.notes:
            self.open = (
                self.open if self.open and not self.open.roles and not line.figures else None
            )
            return
        kept = line.notes or ([line.text] if line.words else [])
        if self.open:
            self.open.notes += kept
            self.open.lines.append(line)
        else:
            self.made.notes += kept

    def _way_in_rounds(self, line: Said) -> None:
        """A way that is gone back among the things of rounds is one of them."""
        among = self.open and self.open.moves and self.open.roles.keys() & (RACES | {"rounds"})
        if among and line.roles.keys() == {"back", "once_far"}:
            far = cut(line.roles["once_far"])[0].figure
            line.tasks, line.roles = [Task(f"{line.roles['back']} back", far)], {}

    def _take(self, line: Said, after: list[Said]) -> None:
        for is_so, does in (
            (self._is_both_ends, self._both_ends),
            (self._is_aside, self._aside),
            (self._is_again, self._again),
            (self._lengthens, self._stretch),
            (self._closes, self._all_of),
            (self._is_for_all, self._to_all),
            (self._rests_among, self._rest_among),
            (self._nests, self._inside),
            (self._pairs, self._pair),
        ):
            if is_so(line):
                does(line)
                return
        if self.open and belongs(self.open, line, after):
            self.open.add(line)
        else:
            self._begin(line)

    def _is_end(self, line: Said, after: list[Said]) -> bool:
        """Whether the last line names a stretch and nothing else, under a race or a list that it is no part of."""
        above = self.open
        if after or above is None or not above.moves or line.roles or line.marks or line.left:
            return False
        one = line.tasks[0] if len(line.tasks) == 1 else None
        named = one is not None and not one.amount and plain(one.name) in labels()
        listed = above.roles.keys() & (CLOCKED | {"around"}) and not above.lines[0].tasks
        return named and not (line.inside or listed)

    def _is_aside(self, line: Said) -> bool:
        """Whether a line is only told: a sentence among moves, a thing on the side every so often."""
        if not self.open or not line.tasks:
            return False
        prose = not line.roles and all(map(sounds_like_prose, line.tasks))
        return prose or ("period" in line.roles and bool(RACES & self.open.roles.keys()))

    def _aside(self, line: Said) -> None:
        assert self.open
        self.open.notes.append(line.text)
        self.open.lines.append(line)

    def _is_again(self, line: Said) -> bool:
        """Whether a line says the same race again, with a rest between and nothing yet done in either."""
        above = self.open
        if above is None or above.moves or not {"amrap", "rest"} <= above.roles.keys():
            return False
        said = {**above.roles, "total": above.roles.get("total") or above.roles.get("work", "")}
        return "amrap" in line.roles and line.roles.items() <= said.items()

    def _again(self, line: Said) -> None:
        assert self.open
        roles, length = self.open.roles, line.roles.pop("total")
        self.open.add(line)
        roles.pop("total", None)
        roles |= {"work": length, "times": str(int(roles.get("times", "1")) + 1)}

    def _lengthens(self, line: Said) -> bool:
        """Whether a line says how long the warm-up above it is, by what is done in it."""
        bare = self.open and self.open.roles.keys() == {"around"} and not self.open.moves
        return bool(bare and line.roles.keys() == {"around", "time"})

    def _is_for_all(self, line: Said) -> bool:
        """Whether a rest is said of all blocks above."""
        unsure = [one.unsure for one in line.left] == ["range:rest"] and not line.roles
        said = line.roles.keys() in ({"rest"}, {"within"}) and not line.left
        return (line.all_ or self._is_last_rest(line)) and not line.tasks and (said or unsure)

    def _is_last_rest(self, line: Said) -> bool:
        """Whether a line is the last, over which several lifts stand one below the other, none with its rest."""
        above = self.made.drafts[-2:]
        lifts = [one for one in above if "sets" in one.roles and not one.roles.keys() & RESTS]
        return line is self.lines[-1] and len(lifts) == 2

    def _rests_among(self, line: Said) -> bool:
        """Whether a rest stands among the lines of rounds."""
        rounds = self.open and self.open.roles.keys() == {"rounds"} and self.open.moves
        return bool(rounds and line.roles.keys() == {"rest"} and ":" in line.roles["rest"])

    def _begin(self, line: Said) -> None:
        draft = Draft(roles=dict(self.company), minutes=self.minutes)
        self.company, self.minutes = {}, ""
        above = self.open
        if above and above.roles.keys() == {"around"} and line.roles.keys() == {"rounds"}:
            draft.roles |= above.roles  # rounds behind the first way of a warm-up are warm-up too
        draft.add(line)
        self.made.drafts.append(draft)
        self.open = draft

    def _stretch(self, line: Said) -> None:
        """What is done in a warm-up or a cool-down, with how long that is."""
        assert self.open
        self.open.roles["time"] = line.roles["time"]
        self.open.tasks = [[Task(line.roles["around"])], *([one] for one in line.tasks)]
        self.open.lines.append(line)

    def _closes(self, line: Said) -> bool:
        """Whether a line says how often what stands above it is done: moves, then their rest."""
        last = self.made.drafts[-2:]
        bare = len(last) == 2 and not last[0].roles and last[1].roles.keys() == {"rest"}
        return bool(
            bare and line.roles.keys() <= {"rounds", "often"} and line.roles and not line.tasks
        )

    def _all_of(self, line: Said) -> None:
        rest = self.made.drafts.pop()
        self.open = self.made.drafts[-1]
        self.open.roles |= {**rest.roles, **line.roles}
        self.open.lines += [*rest.lines, line]

    def _to_all(self, line: Said) -> None:
        """A rest that is said of all blocks above that have none."""
        rests = (one.value for one in line.again if one.name in ("rest", "within", "between"))
        change = next(rests, "")  # “… and 2 min between exercises”
        resting = [
            draft
            for draft in self.made.drafts
            if any("rest" in one.missing for one in draft.nearest())
        ]
        for draft in resting:
            draft.roles |= line.roles
            draft.left += line.left
            draft.lines.append(line)
        for draft in resting[:-1] if change else []:
            at = next(nth for nth, one in enumerate(self.made.drafts) if one is draft)
            self.made.drafts.insert(at + 1, Draft(roles={"rest": change}, lines=[line]))

    def _rest_among(self, line: Said) -> None:
        """A rest among the lines of rounds: a line of its own."""
        assert self.open
        minutes, seconds = (int(one) for one in line.roles["rest"].split(":"))
        self.open.tasks.append([Task("rest", time_of(60 * minutes + seconds))])
        self.open.labels.append(line.label)
        self.open.lines.append(line)

    def _nests(self, line: Said) -> bool:
        """Whether a line is a whole block inside rounds that say nothing else."""
        outer = self.open
        if outer is None:
            return False
        only = (
            outer.roles.keys() <= {"rounds", "sets", "between", "rest"}
            and outer.roles
            and not outer.moves
        )
        own = line.roles.keys() - OF_ANOTHER
        return bool(only and (own or outer.inside) and (line.inset or line.bullet))

    def _inside(self, line: Said) -> None:
        outer = self.open
        assert outer
        last = outer.inside[-1] if outer.inside else None
        if (
            line.roles.keys() == {"rest"}
            and not line.tasks
            and (not last or not belongs(last, line, []))
        ):
            outer.roles["rest"] = line.roles["rest"]
            outer.lines.append(line)
        elif last and belongs(last, line, []):
            last.add(line)
            outer.lines.append(line)
        else:
            draft = Draft()
            draft.add(line)
            outer.inside.append(draft)
            outer.lines.append(line)

    def _pairs(self, line: Said) -> bool:
        """Whether a line is the second of a pair: A2 behind A1, as many sets."""
        outer = self.open
        if outer is None:
            return False
        before = next((one.label for one in outer.lines if one.label), "")
        letters = len(before) == 2 and len(line.label) == 2 and before[0] == line.label[0]
        sets = line.roles.get("sets") or line.roles.get("times")
        paired = (letters and before != line.label) or (
            "together" in line.roles and outer.moves == 1
        )
        return bool(paired and sets and sets == outer.roles.get("sets"))

    def _pair(self, line: Said) -> None:
        outer = self.open
        assert outer
        outer.roles["together"] = ""
        reps, work = line.roles.pop("reps", ""), line.roles.pop("work", "")
        line.roles.pop("times", "")
        if work:
            line.tasks = [replace(one, amount=time_of(seconds_in(work))) for one in line.tasks]
        elif reps != outer.roles.get("reps"):
            line.tasks = [_counted(one, reps) for one in line.tasks]
        outer.add(line)


def _rest_of(line: Said) -> Draft:
    return Draft(roles={"rest": line.roles["within"]}, lines=[line])


def _counted(task: Task, reps: str) -> Task:
    """A task with reps of its own."""
    said = reps.removesuffix(" reps")
    return (
        task
        if task.amount
        else replace(
            task, amount=Figure("count", "range" if "-" in said else "one", tuple(said.split("-")))
        )
    )
