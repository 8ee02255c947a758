"""What the club holds: its school, the kit that is missing today, its own moves, remarks that aren't for it."""

from collections.abc import Iterable
from typing import Annotated, Literal

from pydantic import Field
from sqlmodel import Session as Work
from sqlmodel import col, delete, or_, select

from lovrit.core.advice.company import Schools
from lovrit.core.days import Habit
from lovrit.core.forecast.learned import Quickness
from lovrit.core.moves.figure import Drawing
from lovrit.core.moves.library import Library, shipped
from lovrit.core.moves.move import Move
from lovrit.core.moves.names import key_of
from lovrit.core.tries.in_one_go import usual_of
from lovrit.core.values import Value, checked, plain
from lovrit.store.tables import AsideRow, ClubRow, LearntRow, OwnMoveRow, PersonRow


def choice(work: Work, key: str) -> object:
    """A choice of the club's; None where nobody chose."""
    row = work.get(ClubRow, key)
    return row.value if row else None


def choices(work: Work, keys: list[str]) -> dict[str, object]:
    """Several choices at once, by their names; what was never chosen is left out."""
    query = select(ClubRow.key, ClubRow.value).where(col(ClubRow.key).in_(keys))
    return dict(list(work.exec(query)))


def choose(work: Work, key: str, value: object) -> None:
    """Choose."""
    work.merge(ClubRow(key=key, value=value))


class About(Value):
    """The club in its own words: its name, its time zone, and what is said when somebody is unwell.

    ``days`` is how it writes a day in figures; ``traces`` what becomes of traces that are older than a year.
    """

    name: Annotated[str, Field(max_length=80)] = ""
    zone: Annotated[str, Field(max_length=60)] = ""
    days: Habit = "day first"
    told: Annotated[str, Field(max_length=200)] = ""
    defibrillator: Annotated[str, Field(max_length=200)] = ""
    address: Annotated[str, Field(max_length=200)] = ""
    traces: Literal["whole", "thinned", "gone"] = "whole"


def about(work: Work) -> About:
    """What the club says of itself."""
    return checked(About, choice(work, "about") or {})


def set_about(work: Work, said: About) -> None:
    """Say it."""
    choose(work, "about", plain(said))


def begun(work: Work) -> bool:
    """Whether the first hour is over: somebody went on from it."""
    return choice(work, "begun") is True


def begin(work: Work) -> None:
    """Go on from the first hour."""
    choose(work, "begun", True)


def talk(work: Work, session_id: int | None) -> list[str]:
    """What the coach says before a session, where they changed it."""
    value = choice(work, f"talk-{session_id}")
    return [str(line) for line in value] if isinstance(value, list) else []


def set_talk(work: Work, session_id: int | None, lines: list[str]) -> None:
    """Keep it; with no lines it is written anew each time."""
    choose(work, f"talk-{session_id}", lines)


def old_secret(work: Work) -> str:
    """What links were signed with up to 0.7.0, where the club's own file still holds it; empty where it doesn't."""
    kept = choice(work, "secret")
    return kept if isinstance(kept, str) else ""


def drop_secret(work: Work) -> None:
    """The club's file holds it no more."""
    if (row := work.get(ClubRow, "secret")) is not None:
        work.delete(row)


def class_links(work: Work, class_id: int) -> dict[str, int]:
    """How often links into a class were ended: by what each opens, “all” for all of them at once."""
    value = choice(work, f"links-{class_id}")
    return {str(key): int(many) for key, many in value.items()} if isinstance(value, dict) else {}


def end_class_links(work: Work, class_id: int, which: str) -> None:
    """Links that were given out end: of one screen, of one person, or all; new ones are made from now on."""
    ended = class_links(work, class_id)
    choose(work, f"links-{class_id}", ended | {which: ended.get(which, 0) + 1})


def generation(work: Work) -> int:
    """Which links to the weeks hold: of how manieth making."""
    value = choice(work, "shown-link")
    return value if isinstance(value, int) else 1


def renew(work: Work) -> None:
    """Links to the weeks that were given end; new ones are made from now on."""
    choose(work, "shown-link", generation(work) + 1)


def schools(work: Work) -> Schools:
    """What the club holds where coaches disagree."""
    return checked(Schools, choice(work, "schools") or {})


def set_schools(work: Work, chosen: Schools) -> None:
    """Choose a school."""
    choose(work, "schools", plain(chosen))


def missing(work: Work) -> frozenset[str]:
    """Kit that isn't there today."""
    value = choice(work, "missing")
    return frozenset(str(name) for name in value) if isinstance(value, list) else frozenset()


def set_missing(work: Work, names: Iterable[str]) -> None:
    """Say which kit isn't there today."""
    choose(work, "missing", sorted(set(names)))


def pace(work: Work) -> tuple[float, int]:
    """The club's pace as its scores have it, and on how many it rests."""
    value = choice(work, "pace")
    if isinstance(value, dict):
        return float(value["factor"]), int(value["rests_on"])
    return 1.0, 0


def set_paces(work: Work, club: Quickness, people: dict[int, Quickness]) -> None:
    """Keep the club's pace, and each person's who has scores."""
    choose(work, "pace", plain(club))
    choose(work, "paces", {str(person): plain(pace) for person, pace in people.items()})


def keep_learnt(work: Work, class_id: int, ratios: list[tuple[int, float]]) -> None:
    """Keep what a class's scores say, as (person, ratio); nothing is kept of one that says nothing."""
    if ratios:
        work.merge(LearntRow(class_id=class_id, ratios=[list(one) for one in ratios]))
    else:
        work.exec(delete(LearntRow).where(col(LearntRow.class_id) == class_id))


def learnt(work: Work) -> list[tuple[int, float]]:
    """What the scores of all classes say."""
    return [
        (int(person), ratio)
        for ratios in work.exec(select(LearntRow.ratios))
        for person, ratio in ratios
    ]


def paces(work: Work) -> dict[int, Quickness]:
    """Each person's pace who has scores."""
    value = choice(work, "paces")
    kept = value if isinstance(value, dict) else {}
    return {int(person): checked(Quickness, pace) for person, pace in kept.items()}


def library(work: Work) -> Library:
    """The moves that ship with the club's own, at the club's pace, with what most here do of them in one go."""
    own = [checked(Move, row.body) for row in work.exec(select(OwnMoveRow))]
    factor, rests_on = pace(work)
    mosts = [one for one in mosts_of(work) if one]
    if not own and not rests_on and not mosts:
        return shipped()
    known = shipped().with_own(own).at_pace(factor, rests_on)
    return known.done_here(usual_of(mosts, known)) if mosts else known


def mosts_of(work: Work) -> tuple[dict[str, float], ...]:
    """What people do in one go, each person's by move; of who was let go nothing."""
    there = col(PersonRow.gone_ms).is_(None)
    query = select(PersonRow.mosts).where(there).order_by(col(PersonRow.id))
    return tuple(dict(one) for one in work.exec(query))


def own_keys(work: Work) -> set[str]:
    """The keys of the club's own moves."""
    return set(work.exec(select(OwnMoveRow.key)))


def keep_move(work: Work, move: Move, now_ms: int, drawing: Drawing | None = None) -> None:
    """Keep a move of the club's own; one of the same name takes its place. A drawing stays unless another comes."""
    before = work.get(OwnMoveRow, key_of(move.name))
    drawn = plain(drawing) if drawing else before.drawing if before else None
    body = plain(move, exclude_defaults=True)
    work.merge(OwnMoveRow(key=key_of(move.name), body=body, drawing=drawn, changed_ms=now_ms))


def let_go(work: Work, name: str) -> None:
    """Let an own move go; one that ships is as it was shipped again."""
    work.exec(delete(OwnMoveRow).where(col(OwnMoveRow.key) == key_of(name)))


def drawings(work: Work) -> dict[str, Drawing]:
    """The club's own drawings, by the keys of their moves."""
    rows = work.exec(select(OwnMoveRow.key, OwnMoveRow.drawing))
    return {key: checked(Drawing, drawn) for key, drawn in rows if drawn}


def asides(work: Work, session_id: int | None = None) -> list[AsideRow]:
    """Remarks put aside: for a session and always; all of them where none is named."""
    query = select(AsideRow)
    if session_id is not None:
        query = query.where(
            or_(col(AsideRow.session_id).is_(None), col(AsideRow.session_id) == session_id)
        )
    return list(work.exec(query.order_by(col(AsideRow.at_ms).desc(), col(AsideRow.id).desc())))


def put_aside(work: Work, code: str, session_id: int | None, reason: str, now_ms: int) -> None:
    """Put a kind of remark aside, for a session or always; twice is once."""
    here = [row for row in asides(work) if row.code == code and row.session_id == session_id]
    if not here:
        work.add(AsideRow(code=code, session_id=session_id, reason=reason, at_ms=now_ms))


def bring_back(work: Work, aside_id: int) -> None:
    """Let a kind of remark speak again."""
    work.exec(delete(AsideRow).where(col(AsideRow.id) == aside_id))
