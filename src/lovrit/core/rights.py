"""Who may do what in the house: an owner everything, a coach all of the work, an assistant the floor."""

from typing import Literal, NamedTuple

Role = Literal["owner", "coach", "assistant"]
ROLES: tuple[Role, ...] = ("owner", "coach", "assistant")
MAY: dict[Role, str] = {
    "owner": "everything: also who may come in, copies and restoring",
    "coach": "all of the work with people, sessions, halls and classes",
    "assistant": "the floor: starting, pressing, marks, who wears which strap; nothing of limits, remarks or health",
}


class Who(NamedTuple):
    """Somebody who is in: a name (empty for who knows the club's passphrase, or sits at the machine), and as what."""

    name: str
    role: Role
    keeper: int | None = None

    def may(self, needs: Role) -> bool:
        """Whether they may do what somebody of a role may."""
        return ROLES.index(self.role) <= ROLES.index(needs)


OWNER = Who("", "owner")
