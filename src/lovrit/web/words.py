"""The words on the screens that more than one place uses, kept together."""

WORDS = {
    "name": "lovrit",
    "desk": "Desk",
    "crew": "Crew",
    "run": "Run",
    "debrief": "Debrief",
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
    "everywhere": (
        ("?", "these keys"),
        ("g then d, c, r, b", "Desk, Crew, Run, Debrief"),
    ),
    "desk": (
        ("Ctrl-Z or ⌘Z", "undo, typing and dragging alike"),
        ("Ctrl-Shift-Z or ⌘⇧Z", "redo"),
        ("F8", "next line that can't be read, or next remark"),
        ("Ctrl-.", "take the nearest line that would be read"),
        ("[ and ]", "block before, block after"),
        ("↑ ↓ on a figure", "step it; type a number to set it; drag to scrub"),
        ("Alt-↑ Alt-↓ on a station", "move it"),
        ("Delete on a station", "take it out; Enter renames, D doubles, I inserts"),
    ),
    "run": (
        ("space", "start, hold, go on"),
        ("← →", "back a turn, next turn"),
        ("+", "ten more seconds"),
        ("s", "someone stops"),
        ("m", "mark this moment"),
        ("e", "end here"),
        ("b", "sound on or off"),
    ),
}
