"""The tables. Times are milliseconds since 1970 in UTC; positions and versions count from 1."""

from typing import Any

from sqlalchemy import JSON, Column, Index, UniqueConstraint
from sqlmodel import Field, SQLModel


class SessionRow(SQLModel, table=True):
    """A session being written: its newest text, and where in its history it stands.

    ``length_s``, ``structures``, ``moves`` and ``day`` say what the text comes to, so that lists plan nothing;
    ``length_s`` is None while nobody has worked that out. ``evening_of`` is the session that this one is a further
    evening of.
    """

    __tablename__ = "session"

    id: int | None = Field(default=None, primary_key=True)
    title: str = ""
    text: str = ""
    good_text: str = ""
    version: int = 1
    position: int = 1
    groups: int = 0
    created_ms: int
    changed_ms: int
    put_away_ms: int | None = None
    length_s: int | None = None
    structures: str = ""
    moves: list[str] = Field(default_factory=list, sa_column=Column(JSON, nullable=False))
    day: str | None = Field(default=None, index=True)
    evening_of: int | None = Field(default=None, index=True)


class VersionRow(SQLModel, table=True):
    """A text that a session has had. ``op`` is the post that made it, so that a post sent twice counts once."""

    __tablename__ = "session_version"
    __table_args__ = (UniqueConstraint("session_id", "op"),)

    session_id: int = Field(foreign_key="session.id", primary_key=True, ondelete="CASCADE")
    version: int = Field(primary_key=True)
    text: str
    op: str | None = None
    at_ms: int


class StepRow(SQLModel, table=True):
    """A step that can be undone: which version stands at which position of the history."""

    __tablename__ = "session_step"

    session_id: int = Field(foreign_key="session.id", primary_key=True, ondelete="CASCADE")
    position: int = Field(primary_key=True)
    version: int
    burst: str | None = None
    at_ms: int


class RevisionRow(SQLModel, table=True):
    """A version worth keeping by name, with its reason."""

    __tablename__ = "revision"

    id: int | None = Field(default=None, primary_key=True)
    session_id: int = Field(foreign_key="session.id", ondelete="CASCADE", index=True)
    text: str
    reason: str
    at_ms: int


class PersonRow(SQLModel, table=True):
    """A person of the club. Heart figures are beats a minute; ``effort_only`` where the heart can't steer."""

    __tablename__ = "person"

    id: int | None = Field(default=None, primary_key=True)
    name: str
    initials: str
    rest_hr: int | None = None
    max_hr: int | None = None
    age: int | None = None
    effort_only: bool = False
    strap: str = "steady"
    mind: str = ""
    standing: str = "usual"
    since: str | None = None
    pace_100_s: int | None = None
    limits: list[str] = Field(default_factory=list, sa_column=Column(JSON, nullable=False))
    paces: list[dict[str, Any]] = Field(
        default_factory=list, sa_column=Column(JSON, nullable=False)
    )
    does: dict[str, Any] = Field(default_factory=dict, sa_column=Column(JSON, nullable=False))
    contact: str = ""
    cleared: str = ""
    until: str | None = None
    share: str = ""
    threshold_hr: int | None = None
    measured: str = ""
    level: int | None = None
    together: list[int] = Field(default_factory=list, sa_column=Column(JSON, nullable=False))
    apart: list[int] = Field(default_factory=list, sa_column=Column(JSON, nullable=False))
    bests: dict[str, float] = Field(default_factory=dict, sa_column=Column(JSON, nullable=False))
    limit_hr: int | None = None
    by_age: str = ""  # the club's formula where nothing is said
    heart: dict[str, Any] | None = Field(default=None, sa_column=Column(JSON, nullable=True))
    learnt_from_ms: int = (
        0  # classes before it teach nothing: what was learnt of them was thrown away
    )
    gone_ms: int | None = None  # let go; erased a while later
    born: int | None = None  # the year; where it is there, the age is told from it
    hearts: str = ""  # whether what a strap told may be kept
    hearts_since: str | None = None
    mosts: dict[str, float] = Field(default_factory=dict, sa_column=Column(JSON, nullable=False))
    guardian: str = ""  # whose word it was, where somebody is a child
    link_no: int = 0  # which of their own links holds; those given before have ended


class PersonChangeRow(SQLModel, table=True):
    """That something of somebody's health was changed: which, by whom, when; never what it is."""

    __tablename__ = "person_change"

    id: int | None = Field(default=None, primary_key=True)
    person_id: int = Field(foreign_key="person.id", ondelete="CASCADE", index=True)
    at_ms: int
    by: str
    what: str


class ComesRow(SQLModel, table=True):
    """Who comes to a session, and in which group (from 0)."""

    __tablename__ = "comes"

    session_id: int = Field(foreign_key="session.id", primary_key=True, ondelete="CASCADE")
    person_id: int = Field(foreign_key="person.id", primary_key=True, ondelete="CASCADE")
    comes: bool = True
    group: int = 0


class AnswerRow(SQLModel, table=True):
    """What somebody said of coming to a session on its ``day`` (YYYY-MM-DD); a guest has a name and no number."""

    __tablename__ = "answer"
    __table_args__ = (UniqueConstraint("session_id", "person_id", name="uq_answer_session_person"),)

    id: int | None = Field(default=None, primary_key=True)
    session_id: int = Field(foreign_key="session.id", ondelete="CASCADE", index=True)
    person_id: int | None = Field(default=None, foreign_key="person.id", ondelete="CASCADE")
    name: str = ""
    day: str
    comes: bool
    word: str = ""
    at_ms: int


class OwnEveningRow(SQLModel, table=True):
    """An evening that somebody ran alone on their own phone; ``key`` is the phone's, so that it counts once.

    ``scores`` are [block, text] pairs, ``laps`` [block, phase, seconds] as they were taken.
    """

    __tablename__ = "own_evening"
    __table_args__ = (UniqueConstraint("person_id", "key", name="uq_own_evening_key"),)

    id: int | None = Field(default=None, primary_key=True)
    person_id: int = Field(foreign_key="person.id", ondelete="CASCADE", index=True)
    session_id: int | None = Field(default=None, foreign_key="session.id", ondelete="SET NULL")
    key: str
    day: str
    at_ms: int
    title: str
    text: str
    at_home: bool = False
    lasted_s: int
    whole: bool
    felt: float | None = None
    word: str = ""
    scores: list[list[Any]] = Field(sa_column=Column(JSON, nullable=False))
    laps: list[list[Any]] = Field(sa_column=Column(JSON, nullable=False))


class ClassRow(SQLModel, table=True):
    """A class: the session as it went to the floor, what it is run by, and who came."""

    __tablename__ = "class"

    id: int | None = Field(default=None, primary_key=True)
    session_id: int | None = Field(
        default=None, foreign_key="session.id", ondelete="SET NULL", index=True
    )
    title: str
    text: str
    people: list[dict[str, Any]] = Field(sa_column=Column(JSON, nullable=False))
    made_ms: int = Field(index=True)
    over_ms: int | None = None
    away_ms: int | None = None
    is_try: bool = False
    frozen: dict[str, Any] | None = Field(default=None, sa_column=Column(JSON, nullable=True))


class RecordRow(SQLModel, table=True):
    """What is kept of a class that is over, worked out again after each change of it. ``day`` is the club's."""

    __tablename__ = "class_record"

    class_id: int = Field(foreign_key="class.id", primary_key=True, ondelete="CASCADE")
    day: str = Field(index=True)
    did: list[dict[str, Any]] = Field(sa_column=Column(JSON, nullable=False))
    changes: list[str] = Field(sa_column=Column(JSON, nullable=False))
    outcome: dict[str, Any] = Field(sa_column=Column(JSON, nullable=False))


class ScoreRow(SQLModel, table=True):
    """A score that can be compared: ``kin`` is what its block has in common with others of its kind, ``ways`` whose."""

    __tablename__ = "class_score"
    __table_args__ = (
        Index("ix_class_score_kin", "kin", "day"),
        Index("ix_class_score_person", "person_id", "day"),
    )

    class_id: int = Field(foreign_key="class.id", primary_key=True, ondelete="CASCADE")
    block: int = Field(primary_key=True)
    person_id: int = Field(primary_key=True)
    day: str
    kin: str
    ways: str
    label: str
    figure: str
    value: float
    more: bool
    said: str


class LearntRow(SQLModel, table=True):
    """What a class's scores say of people's pace: [person, ratio] pairs; person 0 is the whole class."""

    __tablename__ = "class_learnt"

    class_id: int = Field(foreign_key="class.id", primary_key=True, ondelete="CASCADE")
    ratios: list[list[float]] = Field(sa_column=Column(JSON, nullable=False))


class GuestRow(SQLModel, table=True):
    """A browser that gave a passphrase; ``key`` is the hash of what its cookie holds, ``keeper_id`` whose it is."""

    __tablename__ = "guest"

    key: str = Field(primary_key=True)
    said: str
    came_ms: int
    seen_ms: int
    keeper_id: int | None = None


class KeeperRow(SQLModel, table=True):
    """Somebody of the house: their passphrase's hash once they came, else the hash of their invitation."""

    __tablename__ = "keeper"

    id: int | None = Field(default=None, primary_key=True)
    name: str
    role: str
    hash: str | None = None
    invite: str | None = None
    invited_ms: int
    ended_ms: int | None = None


class EventRow(SQLModel, table=True):
    """Something that happened in a class; ``event_id`` is the sender's, so that it counts once."""

    __tablename__ = "class_event"
    __table_args__ = (UniqueConstraint("class_id", "event_id"),)

    class_id: int = Field(foreign_key="class.id", primary_key=True, ondelete="CASCADE")
    seq: int = Field(primary_key=True)
    event_id: str
    at_ms: int
    body: dict[str, Any] = Field(sa_column=Column(JSON, nullable=False))


class SampleRow(SQLModel, table=True):
    """A strap's reading, raw: 0 is no signal."""

    __tablename__ = "sample"
    __table_args__ = {"sqlite_with_rowid": False}

    class_id: int = Field(foreign_key="class.id", primary_key=True, ondelete="CASCADE")
    person_id: int = Field(primary_key=True)
    at_ms: int = Field(primary_key=True)
    bpm: int


class StrapRow(SQLModel, table=True):
    """A strap that tells from outside: its own id, what it is called here, and who wears it."""

    __tablename__ = "strap"

    id: str = Field(primary_key=True)
    name: str = ""
    person_id: int | None = Field(default=None, foreign_key="person.id", ondelete="SET NULL")
    seen_ms: int = 0


class ClubRow(SQLModel, table=True):
    """A choice of the club's, by name."""

    __tablename__ = "club"

    key: str = Field(primary_key=True)
    value: Any = Field(sa_column=Column(JSON, nullable=False))


class OwnMoveRow(SQLModel, table=True):
    """A move of the club's own, or its own version of one that ships; and its drawing where it has one."""

    __tablename__ = "own_move"

    key: str = Field(primary_key=True)
    body: dict[str, Any] = Field(sa_column=Column(JSON, nullable=False))
    drawing: dict[str, Any] | None = Field(default=None, sa_column=Column(JSON, nullable=True))
    changed_ms: int


class AsideRow(SQLModel, table=True):
    """A remark that isn't for us: of one session, or always where there is none; with its reason."""

    __tablename__ = "aside"

    id: int | None = Field(default=None, primary_key=True)
    code: str
    session_id: int | None = Field(default=None, foreign_key="session.id", ondelete="CASCADE")
    reason: str = ""
    at_ms: int
