"""One person's data whole: everything that is kept of them, as open files in one archive."""

import io
import json
import zipfile
from typing import Any

from django.forms.models import model_to_dict

from server.files import table
from server.logbook.models import LogEntry
from server.roster.models import Person
from server.sendout.models import SentBack

ABOUT = """Everything that is kept of this person, from Yoisho.

person.json   who they are, screening, limits, knocks to the head
tests.csv     field tests: kind, day, value in the test's unit, counts, where, who counted
log.csv       what was logged: when, how long [s], rating 0-10, strikes counted, note, pain
learned.json  what their logs have taught: every capacity before and after, with its 80 % range
sent_back.json what they sent by a link and nobody has taken yet
camps.json    what was asked of the weeks to a bout, and the days that were planned
records.json  what clock and devices kept of each run: stretches played, heart [s, bpm], strikes [s]
"""


def _plain(value: Any) -> Any:
    return json.loads(json.dumps(value, default=str))


def _learned(who: Person) -> dict[str, Any]:
    kept = getattr(who, "calibration", None)
    if kept is None:
        return {}
    return {"logs": kept.logs, "used": who.learns, "before": kept.before, "after": kept.after}


def archive(who: Person) -> bytes:
    """A zip of JSON and CSV files."""
    known = model_to_dict(who, exclude=["club", "groups", "id"])
    known |= {
        "groups": [group.name for group in who.groups.all()],
        "limits": [
            {"words": str(limit), **model_to_dict(limit, exclude=["person", "id"])} for limit in who.limits.all()
        ],
        "knocks": [model_to_dict(knock, exclude=["person", "id", "noted_by"]) for knock in who.knocks.all()],
    }
    entries = list(LogEntry.objects.filter(result__person=who).select_related("result__run"))
    records = dict(who.results.values_list("pk", "record"))
    tests = table(
        ("kind", "on", "value", "counts", "where", "counted_by"),
        ((t.kind, t.on, t.value, t.counts, t.where, t.counted_by) for t in who.tests.all()),
    )
    log = table(
        ("started_at", "session", "done_s", "rpe", "counted_strikes", "note", "pain"),
        (
            (e.started_at.isoformat(), e.run.title, e.done_s, e.rpe, e.counted_strikes, e.note, json.dumps(e.pain))
            for e in entries
        ),
    )
    told = [{"started_at": e.started_at, "record": records.get(e.result_id)} for e in entries]
    waiting = [
        {"received_at": sent.received_at, "name": sent.name, **sent.entry}
        for sent in SentBack.objects.filter(person=who)
    ]
    camps = [
        {
            "asked": camp.asked,
            "days": list(camp.sessions.filter(cancelled_at=None).values("on", "purpose", "size", "cost")),
        }
        for camp in who.camps.all()
    ]
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as files:
        files.writestr("README.txt", ABOUT)
        files.writestr("person.json", json.dumps(_plain(known), ensure_ascii=False, indent=1))
        files.writestr("tests.csv", tests)
        files.writestr("log.csv", log)
        files.writestr("learned.json", json.dumps(_learned(who), ensure_ascii=False, indent=1))
        files.writestr("sent_back.json", json.dumps(_plain(waiting), ensure_ascii=False))
        files.writestr("camps.json", json.dumps(_plain(camps), ensure_ascii=False))
        files.writestr("records.json", json.dumps(_plain(told), ensure_ascii=False))
    return out.getvalue()
