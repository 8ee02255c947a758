"""What routes take from a request: the house that it came to, its form, a number in its address."""

from typing import Annotated

from fastapi import Depends, Form, Path, Request
from starlette.datastructures import FormData

from lovrit.core.run.event import MOST_ID
from lovrit.house.floor import Floor
from lovrit.house.house import House

MOST_FIELDS = 420


def house_of(request: Request) -> House:
    """The house that a request came to."""
    house: House = request.app.state.house
    return house


def floor_of(request: Request) -> Floor:
    """The floor that a request came to."""
    floor: Floor = request.app.state.floor
    return floor


async def _form_of(request: Request) -> FormData:
    return await request.form(max_fields=MOST_FIELDS)


InHouse = Annotated[House, Depends(house_of)]
WholeForm = Annotated[FormData, Depends(_form_of)]
# a number in an address; SQLite's go to 63 bits
Id = Annotated[int, Path(ge=0, le=MOST_ID)]
FormId = Annotated[int, Form(ge=0, le=MOST_ID)]
