"""The club's halls: each drawn once, one chosen for a session; where stations stood, and what is wished there."""

from sqlmodel import Session as Work

from lovrit.core.place.hall import Hall
from lovrit.core.place.wishes import Wishes
from lovrit.core.values import LovritError, checked, plain
from lovrit.store.club import choice, choices, choose

MOST_HALLS = 12


class NoSuchHall(LovritError):
    """A hall that isn't there, or can't be."""


def halls(work: Work) -> list[Hall]:
    """All of them, the home hall first; one that nobody has drawn yet where there is none."""
    kept = choice(work, "halls")
    if isinstance(kept, list) and kept:
        return [checked(Hall, one) for one in kept]
    return [checked(Hall, choice(work, "hall") or {})]  # as it was kept while there was one


def hall(work: Work, session_id: int | None = None) -> Hall:
    """The hall of a session: the one that was chosen for it, else the home hall."""
    drawn = halls(work)
    wanted = choice(work, f"hall-{session_id}") if session_id else None
    return next((one for one in drawn if one.name == wanted), drawn[0])


def chosen(work: Work, session_ids: list[int]) -> dict[int, str]:
    """The name of each session's hall."""
    drawn = [one.name for one in halls(work)]
    wanted = choices(work, [f"hall-{one}" for one in session_ids])
    named = {one: wanted.get(f"hall-{one}") for one in session_ids}
    return {one: str(name) if name in drawn else drawn[0] for one, name in named.items()}


def set_hall(work: Work, changed: Hall, session_id: int | None = None) -> None:
    """Draw a hall anew, in the place of the session's.

    Raises:
        NoSuchHall: where another has its name.
    """
    drawn, old = halls(work), hall(work, session_id)
    others = [one for one in drawn if one.name != old.name]
    if any(one.name == changed.name for one in others):
        raise NoSuchHall(f"There is a hall called “{changed.name}” already.")
    choose(work, "halls", [plain(changed if one.name == old.name else one) for one in drawn])
    if session_id and changed.name != old.name:
        choose(work, f"hall-{session_id}", changed.name)


def take(work: Work, session_id: int, name: str) -> None:
    """Choose a hall for a session; a name that none has is a new one, empty.

    Raises:
        NoSuchHall: where there are too many.
    """
    drawn = halls(work)
    if name not in {one.name for one in drawn}:
        if len(drawn) >= MOST_HALLS:
            raise NoSuchHall(f"{MOST_HALLS} halls are as many as are kept; take one out first.")
        empty = checked(Hall, {"name": name})
        choose(work, "halls", [plain(one) for one in (*drawn, empty)])
    choose(work, f"hall-{session_id}", name)


def take_out(work: Work, name: str) -> None:
    """Let a hall go; the last one stays.

    Raises:
        NoSuchHall: where it is the last.
    """
    left = [one for one in halls(work) if one.name != name]
    if not left:
        raise NoSuchHall("It is the only hall; draw it anew instead.")
    choose(work, "halls", [plain(one) for one in left])


def spots(work: Work, session_id: int) -> dict[str, str]:
    """Where a session's stations were placed, by their names; empty where nobody placed them."""
    value = choice(work, f"spots-{session_id}")
    return {str(one): str(at) for one, at in value.items()} if isinstance(value, dict) else {}


def set_spots(work: Work, session_id: int, placed: dict[str, str]) -> None:
    """Keep where stations were placed, and that they stood there in this hall."""
    choose(work, f"spots-{session_id}", placed)
    choose(work, f"stood-{hall(work, session_id).name}", placed)


def stood(work: Work, session_id: int) -> dict[str, str]:
    """Where stations stood last time in the hall of a session."""
    value = choice(work, f"stood-{hall(work, session_id).name}")
    return {str(one): str(at) for one, at in value.items()} if isinstance(value, dict) else {}


def order(work: Work, session_id: int) -> tuple[str, ...]:
    """The stations of a session in the order that a coach gave them by hand; empty where nobody did."""
    value = choice(work, f"order-{session_id}")
    return tuple(str(one) for one in value) if isinstance(value, list) else ()


def keep_order(work: Work, session_id: int, stations: tuple[str, ...]) -> None:
    """Keep an order that was given by hand, so that a placing goes round it; none lets it loose."""
    choose(work, f"order-{session_id}", list(stations))


def wishes(work: Work, session_id: int) -> Wishes:
    """How much each wish weighs: tonight's, else the club's."""
    return checked(Wishes, choice(work, f"wishes-{session_id}") or choice(work, "wishes") or {})


def set_wishes(work: Work, session_id: int, wanted: Wishes, club: bool) -> None:
    """Weigh the wishes for a session; for the club, for all that have none of their own."""
    choose(work, f"wishes-{session_id}", plain(wanted))
    if club:
        choose(work, "wishes", plain(wanted))


def mixed(work: Work, session_id: int) -> bool:
    """Whether levels are to be mixed in the groups of a session; else alike."""
    return choice(work, f"mix-{session_id}") != "alike"


def mix(work: Work, session_id: int, mixed_: bool) -> None:
    """Say whether levels are to be mixed."""
    choose(work, f"mix-{session_id}", "mixed" if mixed_ else "alike")
