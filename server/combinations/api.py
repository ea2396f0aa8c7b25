from django.http import HttpRequest
from ninja import Router, Status
from ninja.pagination import paginate

from server.accounts.current import club_of
from server.accounts.models import Club
from server.accounts.once import once
from server.combinations import schemas
from server.combinations.models import BookEntry
from server.errors import Faults, FieldError, Message
from server.pages import Listed, Pages
from yoisho.session.document import drill_from_dict, drill_to_dict
from yoisho.session.interval import Interval, SessionError
from yoisho.strikes import notation
from yoisho.strikes.bags import BAGS, against, suitable
from yoisho.strikes.combination import Combination, CombinationError, mirrored
from yoisho.strikes.counts import Stance, counts
from yoisho.strikes.drill import Drill, one
from yoisho.strikes.generate import alternating, ladder, medley

router = Router(tags=["combinations"])


def _read(text: str, school: str) -> Drill:
    try:
        return notation.read_drill(text, school)
    except notation.NotationError as error:
        raise FieldError(["body", "text"], error.message, "notation", error.as_dict()) from error


def _combination(
    found: Combination, school: str, stance: Stance = "orthodox", tempo: str = "combination", seconds: int = 180
) -> schemas.CombinationOut:
    held = counts(found, stance)
    interval = Interval(seconds, tempo, drill=one(found))
    return schemas.CombinationOut(
        text=notation.write(found, school),
        calls=notation.calls(found),
        mirrored=notation.write(mirrored(found), school),
        limbs=held.limbs,
        heights=held.heights,
        strikes=held.strikes,
        defences=held.defences,
        steps=held.steps,
        pass_s=round(interval.rep_s(), 2),
        passes=interval.passes(),
        suits=[BAGS[bag_id].word for bag_id in suitable(found)],
        against=[schemas.Against(bag=bag.word, why=why) for bag in BAGS.values() for why in against(found, bag.id)],
    )


def _drill(drill: Drill, school: str, asked: schemas.ReadIn | None = None) -> schemas.DrillOut:
    around = (asked.stance, asked.tempo, asked.seconds) if asked else ()
    return schemas.DrillOut(
        text=notation.write_drill(drill, school),
        order=drill.order,
        recall=drill.recall,
        combinations=[_combination(each, school, *around) for each in drill.combinations],
        whole=_combination(drill.whole, school, *around),
    )


def _out(entry: BookEntry, school: str) -> schemas.EntryOut:
    drill = _drill(drill_from_dict(entry.drill), school)
    return schemas.EntryOut(id=entry.pk, name=entry.name, tags=entry.tags, note=entry.note, drill=drill)


@router.post("/combinations/read", response={200: schemas.DrillOut, 422: Faults}, operation_id="read_combination")
def read_combination(request: HttpRequest, body: schemas.ReadIn) -> schemas.DrillOut:
    """A line of the notation: counted, timed, mirrored, spelled out, and held against every bag."""
    school = club_of(request).school
    drill = _read(body.text, school)
    try:
        return _drill(drill, school, body)
    except SessionError as error:
        raise FieldError(["body", "tempo"], str(error), "tempo") from error


@router.post("/combinations/make", response={200: schemas.MadeOut, 422: Faults}, operation_id="make_combination")
def make_combination(request: HttpRequest, body: schemas.MakeIn) -> dict[str, str]:
    """Work made from combinations: mirrored, pyramid, ladder, rounds that add, a draw, contrast, medley."""
    school = club_of(request).school
    drill = _read(body.text, school)
    try:
        return {"text": notation.write_drill(_made(drill, body), school)}
    except CombinationError as error:
        raise FieldError(["body", "text"], str(error), "combination") from error


def _made(drill: Drill, body: schemas.MakeIn) -> Drill:
    given = drill.combinations
    match body.kind:
        case "mirrored":
            return Drill(tuple(mirrored(each) for each in given), drill.order, drill.recall)
        case "pyramid" | "adding":
            return Drill(given, body.kind)
        case "draw":
            return Drill(given, "draw", recall=True)
        case "ladder":
            if len(drill.whole.actions) != 1:
                raise CombinationError("a ladder has one technique: write that one alone, such as 3")
            return Drill(ladder(drill.whole.actions[0], tuple(body.counts)))
        case "medley":
            return one(medley(given, body.counts[0] if body.counts else 1))
        case "alternating":
            if len(given) != 2:
                raise CombinationError("two combinations alternate: write both with | between, such as rk | lk")
            ones, others, times = (*body.counts, 1, 1, 1)[:3]
            return one(alternating(given[0], ones, given[1], others, times))


def _find(club: Club, entry_id: int) -> BookEntry:
    return BookEntry.objects.find(club, "combination", pk=entry_id)


@router.get("/combinations", response=list[schemas.EntryOut], operation_id="combinations")
@paginate(Pages)
def combinations(request: HttpRequest) -> Listed:
    """The club's book, in its school."""
    club = club_of(request)
    return Listed(BookEntry.objects.of(club), lambda entry: _out(entry, club.school))


def _fields(body: schemas.EntryIn, school: str) -> dict[str, object]:
    drill = drill_to_dict(_read(body.text, school))
    tags = list(dict.fromkeys(tag.strip().lower() for tag in body.tags if tag.strip()))
    return {"name": body.name.strip() or body.text, "drill": drill, "tags": tags, "note": body.note}


@router.post("/combinations", response={201: schemas.EntryOut, 422: Faults}, operation_id="create_combination")
@once
def create_combination(request: HttpRequest, body: schemas.EntryIn) -> Status[schemas.EntryOut]:
    club = club_of(request)
    entry = BookEntry.objects.create(club=club, **_fields(body, club.school))
    return Status(201, _out(entry, club.school))


@router.put(
    "/combinations/{entry_id}",
    response={200: schemas.EntryOut, 404: Message, 422: Faults},
    operation_id="save_combination",
)
def save_combination(request: HttpRequest, entry_id: int, body: schemas.EntryIn) -> schemas.EntryOut:
    club = club_of(request)
    entry = _find(club, entry_id)
    for name, value in _fields(body, club.school).items():
        setattr(entry, name, value)
    entry.save()
    return _out(entry, club.school)


@router.delete("/combinations/{entry_id}", response={204: None, 404: Message}, operation_id="delete_combination")
def delete_combination(request: HttpRequest, entry_id: int) -> Status[None]:
    _find(club_of(request), entry_id).delete()
    return Status(204, None)
