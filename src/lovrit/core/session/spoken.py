"""How headings are said on boards, turned into the slate's own form; and what could be meant in two ways, asked.

Each saying is a pattern for a whole line and what it is on the slate. Every figure of the own form comes from the line.
"""

import re
from collections.abc import Callable
from typing import NamedTuple

from lovrit.core.clock import clock
from lovrit.core.session.plainly import plainly
from lovrit.core.slate.problem import Unreadable

MINUTES = (
    3,
    60,
)  # a bare figure is minutes as a length from three to sixty; anything else is asked
SHORTEST_WORK = 5  # below, `3 x 10` and its kin are counts


class Own(NamedTuple):
    """A heading in the slate's own form, with the move that was written on the same line where there was one."""

    head: str
    move: str = ""


Matched = re.Match[str]
# what stands behind a heading: options in the slate's own words, taken over as they are
TAIL = r"(?P<tail>(?:\s*,|\s+(?:at|cap|rest|break|heart|pace|ladder|partners|score|half|drop|change|lead-in)\b).*)?"
MIN = r"(?:\s*(?:'|′|min(?:ute)?s?\b\.?))"
SEC = r"(?:\s*(?:\"|″|''|s(?:ec(?:ond)?s?)?\b\.?))"


def _clock(seconds: int) -> str:
    return f"{seconds // 60}:{seconds % 60:02}"


def _seconds(number: str, unit: str | None, usual: str = "min") -> int:
    """A length: with its unit, as m:ss, or bare minutes where that is what is meant."""
    if ":" in number:
        minutes, seconds = number.split(":")
        return int(minutes) * 60 + int(seconds)
    if unit:
        return round(float(number) * (1 if re.match(SEC, unit, re.I) else 60))
    bare = int(float(number))
    if usual == "min" and not MINUTES[0] <= bare <= MINUTES[1]:
        raise _asked(number, f"{bare}:00", f"0:{bare:02}" if bare < 60 else _clock(bare))
    return bare * 60 if usual == "min" else bare


def _asked(said: str, one: str, two: str, nearest: str | None = None) -> Unreadable:
    return Unreadable(f"“{said}” could be {one} or {two}: write which.", 1, (one, two), nearest)


LENGTH = r"(?P<n>\d+:[0-5]\d|\d+(?:\.\d+)?)(?P<u>" + MIN + "|" + SEC + r")?"


def _every(period_s: int, found: Matched) -> Own:
    """A task every so often: for a length, or so many times."""
    tail = found["tail"] or ""
    if found.groupdict().get("times"):
        return Own(f"every {_clock(period_s)} for {_clock(period_s * int(found['times']))}{tail}")
    return Own(f"every {_clock(period_s)} for {_clock(_seconds(found['n'], found['u']))}{tail}")


def _emom(found: Matched) -> Own:
    minutes = int(found["every"] or 1)
    if found["times"] and minutes == 1:
        return Own(f"every 1:00 for {_clock(60 * int(found['times']))}{found['tail'] or ''}")
    return _every(60 * minutes, found)


def _every_period(found: Matched) -> Own:
    if not found["pu"] and ":" not in found["p"]:
        raise _asked(f"every {found['p']}", f"{found['p']}:00", f"0:{int(float(found['p'])):02}")
    return _every(_seconds(found["p"], found["pu"]), found)


def _amrap(found: Matched) -> Own:
    return Own(
        f"as many as possible in {_clock(_seconds(found['n'], found['u']))}{found['tail'] or ''}"
    )


def _pair(found: Matched) -> str:
    return f"{short(_seconds(found['w'], found['wu'], 's'))}/{short(_seconds(found['r'], found['ru'], 's'))}"


def short(seconds: int) -> str:
    """A work or a rest as a coach writes it: seconds to ninety, else m:ss."""
    return str(seconds) if seconds < 60 else _clock(seconds)


def _times(found: Matched) -> Own:
    return Own(f"{found['times']} x {_pair(found)}{found['tail'] or ''}")


def _rounds(found: Matched) -> Own:
    return Own(f"{found['times']} rounds of {_pair(found)}{found['tail'] or ''}")


def _times_named(found: Matched) -> Own:
    return Own(f"{found['times']} x {_pair(found)}", found["name"].strip())


FAR = re.compile(
    r"(?:m|met(?:re|er)s?|kms?|kilomet(?:re|er)s?|mi|miles?|cals?|calories?)\b", re.IGNORECASE
)


def _sets(found: Matched) -> Own | None:
    name, load = (found["name"] or "").strip(), found["load"] or ""
    if FAR.match(name):
        return None  # an amount, not a move: so many times so far
    if not name and load:
        return Own(f"{found['times']} sets of {found['reps']} reps", f"@ {load}")
    return Own(
        f"{found['times']} sets of {found['reps']} reps", f"{name}{' @ ' + load if load else ''}"
    )


def _for_time(found: Matched) -> Own:
    cap = f", cap {_clock(_seconds(found['n'], found['u']))}" if found["n"] else ""
    return Own(
        f"{found['times'] or 1} rounds for time{cap}" if found["times"] else f"for time{cap}"
    )


def _once(found: Matched) -> Own:
    """What is done once before the rounds, or behind them, on the same clock."""
    return Own("for time", found["what"] or "")


def _named_sets(found: Matched) -> Own | None:
    """Sets with the name before: ``bench press 4x8 @ 70%``."""
    if found["name"].split(" ", 1)[0].lower() in NOT_STEADY:
        return None
    return _sets(found)


def _named_times(found: Matched) -> Own:
    """Intervals with the name before: ``plank: 3 x 45s, rest 30s``, or inside: ``3 x (40s squat / 20s rest)``."""
    return Own(f"{found['times']} x {_pair(found)}", found["name"].strip())


def _covered(found: Matched) -> Own | None:
    """Repeats of a distance with what is done on the same line: ``4 x 500 m row, rest 2:00``."""
    if found["name"].split(" ", 1)[0].lower() in {"at", "rest", "score", "pace", "heart"}:
        return None
    return Own(f"{found['times']} x {found['much']}{found['tail'] or ''}", found["name"].strip())


def _race(found: Matched) -> Own:
    """One thing for time: ``100 burpees for time``."""
    return Own("for time", found["what"])


def _turned(found: Matched) -> Own | None:
    """The length before the name: ``10 min stretch``."""
    words = found["label"].lower().split()
    if words[0] in NOT_LABELS - {"easy", "hard"} or all(word in NOT_LABELS for word in words):
        return None
    return _steady(found)


def _with_move(found: Matched) -> Own | None:
    """A steady block and what is done in it: ``skill 10 min: handstand``, ``warm-up: 10 min jog``."""
    label = found["label"].lower()
    timed = (
        found["u"] or ":" in found["n"]
    )  # a bare figure behind a label is a count: “odd: 10 burpees”
    if label.split(" ", 1)[0] in NOT_LABELS or not timed:
        return None
    return Own(f"{label} {_clock(_seconds(found['n'], found['u']))}", found["name"].strip())


def _each(found: Matched) -> Own:
    """So long at each station, without a rest or with a change that is said."""
    change = _seconds(found["r"], found["ru"], "s") if found["r"] else 0
    work = short(_seconds(found["n"], found["u"], "s"))
    return Own(f"{found['times']} rounds of {work}/{short(change)}")


def _repeated(found: Matched) -> Own | None:
    head = f"{found['times']} times" + (
        f", rest {_clock(_seconds(found['r'], found['ru']))}" if found["r"] else ""
    )
    raise Unreadable(f"Said several times, it stands below “{head}”, indented.", 1, (head,), head)


def _around(found: Matched) -> Own:
    label = "warm-up" if found["which"].lower() in ("wu", "warm") else "cool-down"
    return Own(f"{label} {_clock(_seconds(found['n'], found['u']))}{found['tail'] or ''}")


def _teams(_found: Matched) -> Own | None:
    raise Unreadable(
        "Teams of whom one works do a block: write it first.",
        1,
        ("5 rounds for time, teams of 3, one works",),
    )


def _countdown(found: Matched) -> Own:
    """Ten, eight, six …: reps that go down by so many."""
    start, step = int(found["start"]), int(found["step"])
    if not step or start // step > 40:
        raise Unreadable("That is no way down.", 1, ("21-15-9 for time",))
    scheme = list(range(start, 0, -step))
    return Own(f"{'-'.join(map(str, scheme))} for time{found['tail'] or ''}")


def _scheme(found: Matched) -> Own | None:
    raise _asked(found[0], f"{found[0]} for time", f"3 sets of {found[0]}", f"{found[0]} for time")


def _accumulate(found: Matched) -> Own:
    return Own(f"accumulate {_clock(_seconds(found['n'], found['u']))}", found["name"].strip())


def _steady(found: Matched) -> Own:
    return Own(f"{found['label']} {_clock(_seconds(found['n'], found['u']))}{found['tail'] or ''}")


def _rest(found: Matched) -> Own | None:
    number, unit = found["n"], found["u"]
    if not unit and ":" not in number:
        bare = int(float(number))
        said = f"{found['word']} {number}"
        if bare > MINUTES[1] or "." in number:
            return None
        raise _asked(said, f"rest {bare}:00", f"rest 0:{bare:02}", f"rest {bare}:00")
    return Own(f"rest {_clock(_seconds(number, unit))}")


def _pause(found: Matched) -> Own | None:
    """A pause by its length: ``2 min rest``, ``water break 2 min``."""
    if not found["u"] and ":" not in found["n"]:
        return None
    return Own(f"rest {_clock(_seconds(found['n'], found['u']))}")


def _rounds_every(found: Matched) -> Own | None:
    """So many rounds, one every so often."""
    if not found["u"] and ":" not in found["n"]:
        return None
    period = _seconds(found["n"], found["u"])
    return Own(f"every {_clock(period)} for {_clock(period * int(found['times']))}")


def _sets_rested(found: Matched) -> Own | None:
    """Sets of reps of a move, with their rest: ``3 x 10 squats, 90s rest``."""
    name = (found["name"] or "").strip()
    if FAR.match(name):
        return None
    if name.split(" ", 1)[0].lower() in NOT_STEADY | {"reps", "rep"}:
        name = ""
    groups = found.groupdict()
    n, u = groups.get("n") or groups.get("n2"), groups.get("u") or groups.get("u2")
    rest = f", rest {_clock(_seconds(n, u))}" if n else ""
    load = groups.get("load")
    if not name and not load and "rep" not in found[0].lower() and "set" not in found[0].lower():
        return None  # so many of what: reps, seconds, metres?
    move = f"{name} @ {load}".strip() if load else name
    return Own(f"{found['times']} sets of {found['reps']} reps{rest}", move)


def _every_period_rounds(found: Matched) -> Own:
    """So often, for so many rounds or so long."""
    if found["rounds"]:
        period = _seconds(found["p"], found["pu"])
        return Own(
            f"every {_clock(period)} for {_clock(period * int(found['rounds']))}{found['tail'] or ''}"
        )
    return _every_period(found)


def _bare(found: Matched) -> Own | None:
    """A steady block with a bare figure: minutes, or asked."""
    label = found["label"].lower()
    if label.split(" ", 1)[0] in NOT_STEADY or len(label) < 2:
        return None
    return _steady(found)


# words that name a kind of session and say no more: read as a label they would silently be something else
NOT_STEADY = frozenset({"accumulate", "tempo", "build", "hold", "every", "rest", "as", "for"})
# and those that are no name of a steady block either, wherever the length stands
NOT_LABELS = NOT_STEADY | {
    "amrap", "emom", "on", "off", "work", "easy", "hard", "circuit", "circuits", "intervals", "class", "session",
    "slot", "cap", "max", "between", "each", "then", "x", "round", "rounds", "set", "sets",
}  # fmt: skip
LONE = (
    "intervals",
    "circuit",
    "finisher",
    "strength",
    "chipper",
    "teams",
    "partners",
    "emom",
)
PAIR = (
    rf"(?P<w>\d+(?::\d\d)?)(?P<wu>{MIN}|{SEC})?\s*(?:on|work)\s*[/,]?\s*"
    rf"(?P<r>\d+(?::\d\d)?)(?P<ru>{MIN}|{SEC})?\s*(?:off|rest)"
)
SLASHED = (
    rf"(?P<w>\d+(?::\d\d)?)(?P<wu>{SEC}|{MIN})?\s*/\s*(?P<r>\d+(?::\d\d)?)(?P<ru>{SEC}|{MIN})?"
)
X = r"\s*[x×]\s*"
BARE_CAP = re.compile(r"\bcap (\d+)(?![\d:.]|\s*(?:s|min|'|\"))", re.IGNORECASE)
BARE_REST = re.compile(
    r"(?<=[\s,])(rest|break|change)\s+([1-9]|10)(?=\s*(?:,|$|\s(?:at|added|drop)\b))", re.IGNORECASE
)
PAIR_SAID = re.compile(
    rf"(?<![\d:./])(\d+(?:\.\d+)?)\s*({MIN}|{SEC})\s*/\s*(\d+(?:\.\d+)?)\s*({MIN}|{SEC})(?![a-z])",
    re.IGNORECASE,
)
BARE_HEADER = re.compile(r"(slot|setup)\s*:\s*(\d+)", re.IGNORECASE)
SAYINGS: tuple[tuple[re.Pattern[str], Callable[[Matched], Own | None]], ...] = tuple(
    (re.compile(rf"^{pattern}$", re.IGNORECASE), does)
    for pattern, does in (
        (
            rf"e(?P<every>\d?)mom(?:{X}(?P<times>\d+)|(?:\s+for)?\s+{LENGTH})(?:\s*min(?:utes?)?)?{TAIL}",
            _emom,
        ),
        (rf"{LENGTH}\s+e(?P<every>\d?)(?P<times>)mom{TAIL}", _emom),
        (
            rf"every\s+(?P<every>)minute(?:\s+on\s+the\s+minute)?(?:{X}(?P<times>\d+)|(?:\s+for)?\s+{LENGTH}){TAIL}",
            _emom,
        ),
        (
            rf"every\s+(?P<p>\d+:[0-5]\d|\d+(?:\.\d+)?)(?P<pu>{MIN}|{SEC})?"
            rf"(?:{X}(?P<times>\d+)|\s+for\s+(?P<rounds>\d+)\s+(?:rounds|sets|times)|\s+for\s+{LENGTH}){TAIL}",
            _every_period_rounds,
        ),
        (rf"amrap(?:\s+in|\s+for)?\s+{LENGTH}{TAIL}", _amrap),
        (rf"{LENGTH}\s+amrap{TAIL}", _amrap),
        (
            rf"as\s+many(?:\s+(?:rounds|reps|rounds\s+and\s+reps))?\s+as\s+possible\s+in\s+{LENGTH}{TAIL}",
            _amrap,
        ),
        (rf"{PAIR}(?:{X}|,?\s+)(?P<times>\d+)\s+rounds{TAIL}", _rounds),
        (rf"{SLASHED}(?:{X}|,?\s+)(?P<times>\d+)\s+rounds{TAIL}", _rounds),
        (
            r"(?P<times>\d+)\s*[x×]\s*(?P<much>\d+\s*(?:km|m|cal))\s+(?P<name>[a-z][a-z -]*?)"
            r"(?P<tail>\s*,\s*rest\b.*)?",
            _covered,
        ),
        (rf"{PAIR}{X}(?P<times>\d+){TAIL}", _times),
        (rf"(?P<times>\d+){X}{PAIR}{TAIL}", _times),
        (rf"(?P<times>\d+)\s+rounds(?:\s+of)?\s*[:,]?\s*{PAIR}{TAIL}", _rounds),
        (
            rf"(?P<times>\d+){X}{SLASHED}\s+(?:of\s+)?(?P<name>(?!at\b|cap\b|rest\b|break\b|heart\b|pace\b|half\b"
            rf"|drop\b|change\b|lead|least\b|most\b|score\b|together\b|ladder\b|partners\b|rpe\b)[a-z][a-z -]*)",
            _times_named,
        ),
        (rf"{SLASHED}{X}(?P<times>\d+){TAIL}", _times),
        (
            r"(?P<times>\d+)\s*[x×]\s*(?P<reps>\d+(?:-\d+)?)(?P<name>\s+[a-z][a-z -]*?)?"
            r"(?:\s*@\s*(?P<load>\d+(?:-\d+)?\s*(?:%|kg)))?",
            lambda found: _sets(found) if found["name"] or found["load"] else None,
        ),
        (rf"rft\s+(?P<times>\d+)(?:,?\s+(?:cap|tc)\s+{LENGTH})?", _for_time),
        (r"chipper(?:\s+for\s+time)(?P<times>)(?P<n>)(?P<u>)", _for_time),
        (rf"(?P<times>)for\s+time,?\s+(?:time\s+)?cap\s+{LENGTH}", _for_time),
        (rf"(?P<times>\d+)\s+rounds?,?\s+every\s+{LENGTH}", _rounds_every),
        (rf"{LENGTH}\s+(?:of\s+)?(?:rest|water|drinks?|pause)(?:\s+break)?", _pause),
        (rf"rest\s+for\s+{LENGTH}", _pause),
        (rf"(?:water|drinks?)(?:\s+break)?\s*[:,]?\s*{LENGTH}", _pause),
        (
            rf"(?P<times>\d+)\s*(?:sets?\s*(?:of|[x×])?|[x×])\s*(?P<reps>\d+(?:-\d+)?)\s*(?:reps?\b\s*)?"
            rf"(?P<name>(?!km\b|m\b|cal|s\b|sec|min|on\b|off\b)[a-z][a-z -]*?)?\s*"
            rf"(?:@\s*(?P<load>\d+(?:-\d+)?\s*(?:%|kg)))?\s*,\s*(?:rest\s+{LENGTH}|"
            rf"(?P<n2>\d+(?::[0-5]\d)?)(?P<u2>{MIN}|{SEC})?\s+rest)",
            _sets_rested,
        ),
        (
            r"(?P<times>\d+)\s+sets?\s+(?:of\s+)?(?P<reps>\d+(?:-\d+)?)\s*reps?(?P<name>)(?P<n>)(?P<u>)",
            _sets_rested,
        ),
        (rf"(?P<times>\d+)\s*rft(?:,?\s+(?:cap|tc)\s+{LENGTH})?", _for_time),
        (rf"(?P<times>\d+)\s+rounds\s+for\s+time,?\s+cap\s+{LENGTH}", _for_time),
        (rf"(?P<times>)(?:for\s+time|chipper),?\s+cap\s+{LENGTH}", _for_time),
        (
            rf"(?P<which>wu|cd|warm|cool)(?:[ -]?(?:up|down))?\s*[:,]?\s*{LENGTH}(?:\s+easy)?{TAIL}",
            _around,
        ),
        (r"(?:in\s+)?teams?\s+of\s+\d+(?:,.*)?", _teams),
        (rf"(?P<start>\d+)\s+[-–](?P<step>\d+)(?:\s+for\s+time)?{TAIL}", _countdown),
        (r"\d+(?:-\d+){2,}", _scheme),
        (rf"accumulate\s+{LENGTH}\s+(?:of\s+)?(?P<name>[a-z][a-z -]*)", _accumulate),
        (
            r"(?:in\s+)?partners?,?\s+for\s+time(?P<tail>,.*)?",
            lambda found: Own(f"for time, partners alternate{found['tail'] or ''}"),
        ),
        (r"(?:buy-?\s?in|cash-?\s?out)\s*[:,]?(?:\s+(?P<what>\d.*\S))?", _once),
        (rf"(?P<word>rest|break|pause)\s*[:,]?\s*{LENGTH}", _rest),
        (
            rf"{LENGTH}\s+(?:amrap|as many as possible){X}(?P<times>\d+)"
            rf"(?:,\s*rest\s+(?P<r>\d+(?::\d\d)?)(?P<ru>{MIN}|{SEC})?)?",
            _repeated,
        ),
        (
            rf"(?P<times>\d+){X}(?P<w>\d+(?::\d\d)?)(?P<wu>{MIN}|{SEC})\s*(?:hard|fast|work)?\s*[,/]\s*(?:rest\s+)?"
            rf"(?P<r>\d+(?::\d\d)?)(?P<ru>{MIN}|{SEC})(?:\s+(?:easy|slow|jog|walk|rest|off))?{TAIL}",
            _times,
        ),
        (
            rf"(?P<name>[a-z][a-z -]*[a-z])\s*:?\s+(?P<times>\d+){X}(?P<w>\d+(?::\d\d)?)(?P<wu>{MIN}|{SEC})\s*,?\s*"
            rf"rest\s+(?P<r>\d+(?::\d\d)?)(?P<ru>{MIN}|{SEC})",
            _named_times,
        ),
        (
            rf"(?P<times>\d+)\s*[x×]\s*\(\s*(?P<w>\d+(?::\d\d)?)(?P<wu>{MIN}|{SEC})?\s*(?P<name>[a-z][a-z -]*?)\s*/\s*"
            rf"(?P<r>\d+(?::\d\d)?)(?P<ru>{MIN}|{SEC})?\s*(?:rest|off)\s*\)",
            _named_times,
        ),
        (
            r"(?P<name>[a-z][a-z -]*[a-z])\s*:?\s+(?P<times>\d+)\s*[x×]\s*(?P<reps>\d+(?:-\d+)?)"
            r"(?:\s*@\s*(?P<load>\d+(?:-\d+)?\s*(?:%|kg)))?",
            _named_sets,
        ),
        (
            r"(?P<what>\d+\s*(?:km|m|cal|mi)?\s+(?!rounds?\b)(?!(?:km|mi|m|cal|k)\s+for\b)[a-z][a-z -]*?)"
            r"\s+for\s+time",
            _race,
        ),
        (
            rf"(?P<times>\d+)\s+rounds?,?\s+{LENGTH}\s+(?:each|at each|per station)(?P<r>)(?P<ru>)",
            _each,
        ),
        (
            rf"{LENGTH}\s+each,\s*(?P<r>\d+(?::\d\d)?)(?P<ru>{MIN}|{SEC})?\s*(?:change|rest|off),\s*(?P<times>\d+)\s+rounds?",
            _each,
        ),
        (rf"(?P<label>[a-z][a-z -]*?)\s+{LENGTH}\s*:\s*(?P<name>[a-z][a-z -]*)", _with_move),
        (
            rf"(?P<label>(?:warm|cool)[ -]?(?:up|down))\s+{LENGTH}\s+(?P<name>[a-z][a-z -]*)",
            _with_move,
        ),
        (rf"(?P<label>[a-z][a-z -]*?)\s*:\s*{LENGTH}\s+(?P<name>[a-z][a-z -]*)", _with_move),
        (
            rf"(?P<n>\d+:[0-5]\d(?=\s)|\d+(?=(?:{MIN}|{SEC})))(?P<u>{MIN}|{SEC})?\s+"
            r"(?P<label>(?!min|sec|s\b)[a-z][a-z -]*?)(?P<tail>\s*,?\s+at\s.*)?",
            _turned,
        ),
        (r"(?P<label>[a-z][a-z -]*?)\s+(?P<n>\d+)(?P<u>)(?P<tail>(?:\s*,?\s*at\b.*)?)", _bare),
    )
)


def own_form(text: str) -> Own | None:
    """A heading in the slate's own form; None where it is none of these sayings.

    Raises:
        Unreadable: where it could be meant in two ways, or says too little; both are offered.
    """
    written = " ".join(text.split())
    line = _caps(PAIR_SAID.sub(_clocks, plainly(written)))
    _ask_bare(line)
    if line.lower() in LONE:
        raise Unreadable(
            f"“{line}” says what kind it is, not how long or how often.",
            1,
            ("every 1:00 for 12:00",),
        )
    for pattern, does in SAYINGS:
        found = pattern.match(line)
        if found:
            own = does(found)
            return None if own is None or own.head.lower() == written.lower() else own
    return Own(line) if line != written else None


def _clocks(found: re.Match[str]) -> str:
    """Work and rest with their units: 2 min/1 min."""
    return "/".join(clock(_seconds(found[nth], found[nth + 1])) for nth in (1, 3))


def _ask_bare(line: str) -> None:
    """A rest, break or change of so few is minutes to one and seconds to another.

    Raises:
        Unreadable: with both.
    """
    bare = BARE_REST.search(line)
    if bare:
        ways = [f"{bare[1]} {bare[2]}:00", f"{bare[1]} 0:{int(bare[2]):02}"]
        near = line[: bare.start()] + ways[0] + line[bare.end() :]
        raise _asked(bare[0], ways[0], ways[1], near)


def _caps(line: str) -> str:
    """A bare cap is minutes."""
    return BARE_CAP.sub(lambda found: f"cap {_clock(_seconds(found[1], None))}", line)


def own_header(text: str) -> str | None:
    """A slot or a setup with a bare figure in minutes, as the slate says it; None where it is another header.

    Raises:
        Unreadable: where the figure could be either; both are offered.
    """
    found = BARE_HEADER.fullmatch(text.strip())
    if not found:
        return None
    number = int(found[2])
    if not MINUTES[0] <= number <= MINUTES[1]:
        two = (
            f"{found[1].lower()}: {_clock(number)}"
            if number >= 60
            else f"{found[1].lower()}: 0:{number:02}"
        )
        raise _asked(text.strip(), f"{found[1].lower()}: {number}:00", two)
    return f"{found[1].lower()}: {number}:00"
