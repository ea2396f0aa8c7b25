"""Things that are done once, however often they are asked for: a lost answer makes no second session."""

import hashlib
from collections.abc import Callable
from datetime import timedelta
from functools import wraps
from typing import Any

from django.db import connection, transaction
from django.http import HttpRequest
from django.utils import timezone
from ninja import Status
from ninja.errors import HttpError
from pydantic_core import to_jsonable_python

from server.accounts.current import coach
from server.accounts.models import Answered

HEADER = "Idempotency-Key"
LONGEST_KEY = 80
KEPT = timedelta(days=7)


def _asked(request: HttpRequest) -> str:
    what = f"{request.method} {request.path}\n".encode() + request.body
    return hashlib.sha256(what).hexdigest()


def once(view: Callable[..., Any]) -> Callable[..., Any]:
    """What was answered to a key is answered to it again; the same key with something else is refused.

    The key is the header `Idempotency-Key`, of the device's own making; without one it is done each time.
    """

    @wraps(view)
    def answered(request: HttpRequest, *args: Any, **named: Any) -> Any:
        key = request.headers.get(HEADER)
        if not key:
            return view(request, *args, **named)
        if len(key) > LONGEST_KEY:
            raise HttpError(400, f"{HEADER} has at most {LONGEST_KEY} characters; a UUID does well.")
        user, asked = coach(request), _asked(request)
        with transaction.atomic():
            with connection.cursor() as cursor:
                # The same asked twice at once waits for the first.
                cursor.execute("SELECT pg_advisory_xact_lock(hashtextextended(%s, %s))", [key, user.pk])
            kept = Answered.objects.filter(user=user, key=key).first()
            if kept is not None:
                if kept.asked != asked:
                    raise HttpError(409, f"This {HEADER} was used for something else. Send a new one.")
                return Status(kept.status, kept.body)
            answer = view(request, *args, **named)
            status, body = (answer.status_code, answer.value) if isinstance(answer, Status) else (200, answer)
            Answered.objects.filter(user=user, at__lt=timezone.now() - KEPT).delete()
            Answered.objects.create(user=user, key=key, asked=asked, status=status, body=to_jsonable_python(body))
            return answer

    return answered
