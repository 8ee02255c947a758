"""Who is here, as things stand: each in the group that they are in by now. All who tell of people ask this."""

from lovrit.core.crew.groups import LETTERS
from lovrit.core.crew.person import Comer
from lovrit.core.run.going import Going


def in_their_groups(came: tuple[Comer, ...], going: Going) -> tuple[Comer, ...]:
    """Those who came, each in the group that they are in by now, without who was not there after all."""
    return tuple(_in_group(one, going) for one in came if str(one.id) not in going.absent)


def _in_group(comer: Comer, going: Going) -> Comer:
    who = going.people.get(str(comer.id))
    return comer if who is None else comer.but(group=LETTERS.index(who.group))
