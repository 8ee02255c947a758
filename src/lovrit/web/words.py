"""The words on the screens that more than one place uses, kept together."""

WORDS = {
    "name": "lovrit",
    "to_the_floor": "Take to the floor",
    "someone_stops": "Someone stops",
    "ten_more": "Ten more seconds",
    "hold": "Hold",
    "go_on": "Go on",
    "back": "Back a turn",
    "next": "Next turn",
    "mark": "Mark",
    "end": "End here",
    "start": "Start the class",
    "second_look": "Second look",
    "keys": "press ? for keys",
    "wall": "Wall screen",
    "deal": "Deal groups",
    "new_session": "New session",
    "undo": "Undo",
    "redo": "Redo",
    "not_steering": "by effort",
}

KEYS = {
    "desk": (
        ("Ctrl-Z or ⌘Z", "undo, typing and dragging alike"),
        ("Ctrl-Shift-Z or ⌘⇧Z", "redo"),
        ("Alt-↓ and Alt-↑", "next line that something is said of, and back"),
        ("Alt-Enter", "take the line that is offered"),
        ("Alt-[ and Alt-]", "block before, block after"),
        ("Alt-F", "fit to the clock: say what must be and what may give"),
        ("Alt-R", "recast the block that is open; Enter makes it so"),
        ("1 to 4 in a panel", "take that one; Esc closes the panel"),
        ("↑ ↓ on a figure", "step it; type a number to set it; drag to scrub"),
        (
            "on a block of the tape",
            "Delete out, D double, S split, J join with the next, Alt-← Alt-→ move",
        ),
        (
            "x or Shift-click picks blocks, then",
            "Ctrl-C copy, Ctrl-X cut; Ctrl-V puts blocks behind",
        ),
        ("Alt-↑ Alt-↓ on a station", "move it"),
        ("Delete on a station", "take it out; Enter renames, D doubles, I inserts"),
        ("S on a station", "sides: none, each side, left then right"),
        ("A, E, H on a station", "write another way: or, easier, harder"),
    ),
    "run": (
        ("space", "start, hold, go on"),
        ("← →", "back a turn, next turn"),
        ("+", "ten more seconds"),
        ("s", "someone stops"),
        ("m", "mark this moment"),
        ("hold e for a second", "end here; for a minute it can go on after all"),
        ("b", "sound on or off"),
    ),
}
