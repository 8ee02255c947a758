"""All kinds of event, from one tuple."""

from lovrit.core.run.events.absent import ABSENT
from lovrit.core.run.events.again import AGAIN
from lovrit.core.run.events.back import BACK
from lovrit.core.run.events.broke import BROKE
from lovrit.core.run.events.changed import CHANGED
from lovrit.core.run.events.drop_round import DROP_ROUND
from lovrit.core.run.events.due import DUE
from lovrit.core.run.events.end import END
from lovrit.core.run.events.felt import FELT
from lovrit.core.run.events.goes_on import GOES_ON
from lovrit.core.run.events.heart import HEART
from lovrit.core.run.events.hold import HOLD
from lovrit.core.run.events.joins import JOINS
from lovrit.core.run.events.jump import JUMP
from lovrit.core.run.events.kind import Kind
from lovrit.core.run.events.longer import LONGER
from lovrit.core.run.events.mark import MARK
from lovrit.core.run.events.moves import MOVES
from lovrit.core.run.events.next import NEXT
from lovrit.core.run.events.note import NOTE
from lovrit.core.run.events.plan import PLAN
from lovrit.core.run.events.replace import REPLACE
from lovrit.core.run.events.resume import RESUME
from lovrit.core.run.events.returns import RETURNS
from lovrit.core.run.events.round import ROUND
from lovrit.core.run.events.score import SCORE
from lovrit.core.run.events.show import SHOW
from lovrit.core.run.events.skip_block import SKIP_BLOCK
from lovrit.core.run.events.skip_round import SKIP_ROUND
from lovrit.core.run.events.start import START
from lovrit.core.run.events.stops import STOPS
from lovrit.core.run.events.swap import SWAP
from lovrit.core.run.events.taps import CHANGE, DONE, IN
from lovrit.core.run.events.undo import UNDO
from lovrit.core.run.events.why import WHY

KINDS: tuple[Kind, ...] = (
    START, HOLD, RESUME, NEXT, BACK, AGAIN, LONGER, SKIP_ROUND, SKIP_BLOCK, DROP_ROUND, REPLACE, STOPS, WHY, RETURNS,
    JOINS, MOVES, DONE, IN, ROUND, CHANGE, HEART, MARK, PLAN, DUE, UNDO, END, GOES_ON, FELT, SCORE, NOTE, JUMP, BROKE,
    SWAP, SHOW, ABSENT, CHANGED,
)  # fmt: skip
KNOWN: dict[str, Kind] = {kind.name: kind for kind in KINDS}
