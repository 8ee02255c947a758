"""What each address asks of who opens it. What is not named here is a coach's: nothing is open by being forgotten."""

import re

from starlette.requests import Request

from lovrit.core.rights import OWNER, Role, Who

# what a signed link opens, for people who are not of the house
THEIRS = ("/hand/", "/screen/", "/see/", "/mine/", "/invited/")

# the house itself: who may come in, everything at once, putting copies in place
OWNERS = re.compile(r"/club/(people|guests|restore|copy|archive|home)\b.*")
# the floor: presses and marks, walls and stations, straps and who wears them
ASSISTANTS = re.compile(
    r"/(clock|stream|run|run/of/\d+|run/\d+(/happen|/screens|/cues\.flac)?|wall/\d+|station/\d+/\d+|"
    r"straps(/(wear|find|forget|now|call|by-name|swap))?|out)"
)


def needs(path: str) -> Role:
    """Who may open an address at least."""
    if ASSISTANTS.fullmatch(path):
        return "assistant"
    return "owner" if OWNERS.fullmatch(path) else "coach"


def who_of(request: Request) -> Who:
    """Who sends a request; where no passphrase is asked, whoever sits at the machine owns it."""
    who: Who = request.scope.get("state", {}).get("who", OWNER)
    return who
