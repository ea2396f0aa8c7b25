"""What allauth leaves to us: who may have an account, what is said, and how somebody comes in."""

import logging
from collections.abc import Callable
from typing import Any, ClassVar
from uuid import uuid4

from allauth.account.adapter import DefaultAccountAdapter
from allauth.account.internal.flows.login import record_authentication
from allauth.account.models import EmailAddress
from allauth.account.signals import user_logged_in
from allauth.core.internal.ratelimit import consume
from allauth.mfa.adapter import DefaultMFAAdapter
from django.contrib.auth import login
from django.core.exceptions import ValidationError
from django.http import HttpRequest

from server.accounts.models import Club, Role, User
from server.bounded import BusyError
from server.errors import FieldError

log = logging.getLogger(__name__)
BACKEND = "server.accounts.backend.CoachBackend"


def mailed(what: str, send: Callable[[], object]) -> bool:
    """Whether a mail went out. Whoever runs the server reads why not; whom it was for stands in no log."""
    try:
        send()
    except OSError as error:
        log.error("A mail (%s) could not be sent: %s", what, type(error).__name__)
        return False
    return True


class Adapter(DefaultAccountAdapter):  # type: ignore[misc]
    error_messages: ClassVar[dict[str, str]] = {
        **DefaultAccountAdapter.error_messages,
        "account_inactive": "This account was let go. Ask the club's owner.",
        "email_password_mismatch": "That address and password do not belong together. Check both and try again.",
        "email_taken": "There is an account with this address already. Sign in with it.",
        "incorrect_code": "This is not the code, or it has passed. Take the newest one.",
        "incorrect_password": "This is not your password.",
        "enter_current_password": "This is not your password.",
        "invalid_or_expired_key": "This link was used already, or is over. Ask for a new one.",
        "invalid_password_reset": "This link was used already, or is over. Ask for a new one.",
        "too_many_at_once": "Many are signing in at once just now. Try again in a moment.",
        "too_many_login_attempts": "Tried too often. Wait five minutes, or set a new password by mail.",
        "same_as_current": "This is the address that you have.",
        "rate_limited": "Asked too often. Wait a minute.",
    }

    def is_open_for_signup(self, request: HttpRequest) -> bool:
        """Nobody signs up: a club is opened with a code, and joined by an invitation."""
        return False

    def send_mail(self, template_prefix: str, email: str, context: dict[str, Any]) -> None:
        """What was asked for is done, also where the mail about it cannot go."""
        mailed(template_prefix, lambda: super(Adapter, self).send_mail(template_prefix, email, context))

    def _get_login_attempts_cache_key(self, request: HttpRequest, **credentials: Any) -> str:
        """A name is closed to the address it was tried from: nobody elsewhere can lock its owner out."""
        key: str = super()._get_login_attempts_cache_key(request, **credentials)
        return f"{key}:{self.get_client_ip(request)}"

    def pre_authenticate(self, request: HttpRequest, **credentials: Any) -> None:
        super().pre_authenticate(request, **credentials)
        name = super()._get_login_attempts_cache_key(request, **credentials)
        self._over_all = consume(request, app="allauth.account", action="login_failed_anywhere", key=name)
        if not self._over_all:
            raise self.validation_error("too_many_login_attempts")

    def _rollback_login_failed_rl_usage(self) -> None:
        super()._rollback_login_failed_rl_usage()
        self._over_all.rollback()

    def authenticate(self, request: HttpRequest, **credentials: Any) -> Any:
        try:
            return super().authenticate(request, **credentials)
        except BusyError:
            # No password was looked at: it counts as no try.
            self._rollback_login_failed_rl_usage()
            raise self.validation_error("too_many_at_once") from None


class SecondStep(DefaultMFAAdapter):  # type: ignore[misc]
    error_messages: ClassVar[dict[str, str]] = {
        **DefaultMFAAdapter.error_messages,
        "incorrect_code": Adapter.error_messages["incorrect_code"],
    }


def new_account(*, name: str, email: str, password: str, club: Club, role: Role, confirmed: bool = False) -> User:
    """A new account, if its address is free and its password is one.

    It is `confirmed` that the address is theirs where they came by what was sent to it.
    """
    taken = (
        EmailAddress.objects.filter(email__iexact=email).exists() or User.objects.filter(email__iexact=email).exists()
    )
    if taken:
        raise FieldError(["body", "email"], Adapter.error_messages["email_taken"], "email")
    first, _, last = name.partition(" ")
    user = User(username=uuid4().hex, email=email, first_name=first, last_name=last, club=club, role=role)
    try:
        Adapter().clean_password(password, user=user)
    except ValidationError as error:
        raise FieldError(["body", "password"], " ".join(error.messages), "password") from error
    user.set_password(password)
    user.save()
    EmailAddress.objects.create(user=user, email=email, primary=True, verified=confirmed)
    return user


def enter(request: HttpRequest, user: User, how: str, **more: Any) -> None:
    """Signs in somebody who has just shown who they are."""
    login(request, user, backend=BACKEND)
    record_authentication(request, user, method=how, **more)
    user_logged_in.send(sender=User, request=request, user=user)
