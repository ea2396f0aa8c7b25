"""The schools' protocols: listed whole, each version opened as a document."""

from functools import cache

from django.http import HttpRequest
from ninja import Router, Schema

from server.accounts.current import club_of
from server.errors import Message, not_found
from server.sessions.documents import DocumentOut
from yoisho.answers.columns import Block, blocks
from yoisho.judgement.targets import TargetId
from yoisho.protocols import PROTOCOLS, SCALES, Protocol, Version
from yoisho.session.document import to_document, unrolled
from yoisho.session.meaning import meaning
from yoisho.session.shorthand import write_parts
from yoisho.session.volume import volume

router = Router(tags=["library"])


class VersionOut(Schema):
    index: int
    name: str
    scale: str | None
    """For whom, where it is one of the four scales; the others are variants."""
    note: str
    lines: str
    meaning: list[str]
    total_s: int
    """Of the main set: warm-up and cool-down come on top."""
    work_s: int
    strikes: int
    blocks: list[Block]
    """The main set as a small score."""


class ProtocolOut(Schema):
    id: str
    name: str
    meaning: str
    reason: str
    target: TargetId
    cautions: list[str]
    words: list[str]
    source: str
    versions: list[VersionOut]


class OpenedOut(Schema):
    document: DocumentOut
    target: TargetId


def _version(protocol: Protocol, index: int, version: Version, school: str) -> VersionOut:
    timeline = unrolled(version.parts)
    return VersionOut(
        index=index,
        name=version.name,
        scale=next((scale for scale in SCALES if protocol.scales[scale] == version), None),
        note=version.note,
        lines=write_parts(version.parts, school),
        meaning=[meaning(part.tree) for part in version.parts],
        total_s=timeline.total_s,
        work_s=timeline.work_s,
        strikes=round(volume(timeline.intervals).strikes),
        blocks=blocks(timeline),
    )


@cache
def shelf(school: str) -> list[ProtocolOut]:
    """Every protocol in a numbering school."""
    return [
        ProtocolOut(
            id=protocol.id,
            name=protocol.name,
            meaning=protocol.meaning,
            reason=protocol.reason,
            target=protocol.target,
            cautions=list(protocol.cautions),
            words=list(protocol.words),
            source=protocol.source,
            versions=[_version(protocol, index, each, school) for index, each in enumerate(protocol.versions)],
        )
        for protocol in PROTOCOLS.values()
    ]


@router.get("/protocols", response=list[ProtocolOut], operation_id="protocols")
def protocols(request: HttpRequest) -> list[ProtocolOut]:
    return shelf(club_of(request).school)


@router.get(
    "/protocols/{protocol_id}/{index}",
    response={200: OpenedOut, 404: Message},
    operation_id="open_protocol",
)
def open_protocol(request: HttpRequest, protocol_id: str, index: int) -> dict[str, object]:
    """A version as a whole session, warm-up and cool-down with it."""
    protocol = PROTOCOLS.get(protocol_id)
    if protocol is None or not 0 <= index < len(protocol.versions):
        raise not_found("protocol")
    version = protocol.versions[index]
    return {"document": to_document(protocol.session(version)), "target": protocol.target_of(version)}
