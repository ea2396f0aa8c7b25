"""The simulated mailbox: what was sent while no mail server is set. The demo shows it; nobody else does."""

import email
import email.policy
import re
from datetime import datetime
from email.message import EmailMessage
from pathlib import Path

from django.conf import settings
from django.http import HttpRequest
from ninja import Router, Schema
from ninja.errors import HttpError

from server.errors import Message

router = Router(tags=["accounts"])
FILE_BACKEND = "django.core.mail.backends.filebased.EmailBackend"
BETWEEN = re.compile(rb"^-{79}\n", re.MULTILINE)
"""What Django writes after each mail."""
MOST = 50


class Mail(Schema):
    to: str
    subject: str
    sent_at: datetime
    text: str


def _mail(raw: bytes) -> Mail:
    message = email.message_from_bytes(raw, EmailMessage, policy=email.policy.default)
    body = message.get_body(("plain",))
    return Mail(
        to=str(message["To"]),
        subject=str(message["Subject"]),
        sent_at=message["Date"].datetime,
        text=body.get_content().strip() if body else "",
    )


def _written_ns(file: Path) -> int:
    return file.stat().st_mtime_ns


@router.get("/mailbox", response={200: list[Mail], 404: Message}, auth=None, operation_id="mailbox")
def mailbox(request: HttpRequest) -> list[Mail]:
    """The newest mails first. Only in the demo, and only where they are not really sent."""
    if not settings.DEMO or settings.EMAIL_BACKEND != FILE_BACKEND:
        raise HttpError(404, "There is no simulated mailbox here: mails go where they are sent.")
    files = sorted(Path(settings.EMAIL_FILE_PATH).glob("*.log"), key=_written_ns, reverse=True)[:MOST]
    return [_mail(raw) for file in files for raw in reversed(BETWEEN.split(file.read_bytes())) if raw.strip()]
