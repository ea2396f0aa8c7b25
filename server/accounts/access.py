"""Who may do what: one table, by operation. A path that is not in it answers nobody, and a test fails for it."""

import re
from functools import cached_property

from django.http import HttpRequest
from django.utils import timezone
from ninja import NinjaAPI
from ninja.errors import HttpError
from ninja.security import HttpBearer, SessionAuth
from ninja.utils import normalize_path

from server.accounts.models import ApiToken, Role, User
from server.accounts.scopes import scopes_of
from server.accounts.tokens import fingerprint_of

EVERYBODY = frozenset(Role)
"""Runs, logs, names, limits and stop signs."""
TRAINING = frozenset({Role.OWNER, Role.COACH})
"""Everything of training, and what is known of people."""
CLUB = frozenset({Role.OWNER})
"""The club itself, its people's accounts and what they may."""

NOBODY: frozenset[Role] = frozenset()

ACCESS: dict[str, frozenset[Role]] = {
    **dict.fromkeys(
        (
            "sign_out", "coaches", "people", "groups", "roster_words", "note_knock", "vocabulary", "method", "sessions",
            "get_session", "export_session", "run_plan", "plan_of_run", "on_floor", "gate", "save_calls", "speech",
            "begin_run", "journal", "save_journal", "review_run", "say_live", "live_runs", "follow_live", "save_log",
            "today", "mind_today", "rate_planned", "unrate_planned", "note_away",
            "api_tokens", "make_api_token", "take_back_api_token",
            "log", "log_entry", "by_hand", "letters", "send_letter", "take_letter", "combinations", "protocols",
            "wall_sheet", "planned_file",
            "tracks", "make_track", "track", "cancel_track", "follow_track", "track_file",
            "music", "bring_music",
            "camp_of", "class_of",
        ),
        EVERYBODY,
    ),
    **dict.fromkeys(
        (
            "add_person", "preview_people", "import_people", "save_person", "archive_person", "person", "export_person",
            "add_group", "save_group", "delete_group",
            "add_limit", "lift_limit", "clear_knock", "save_screening", "save_clearance", "add_test", "delete_test",
            "read_shorthand", "complete_shorthand", "plan_session", "take_off",
            "evaluate_session", "check_claim", "propose_session",
            "scale_session", "nudges", "make_it_so", "create_session", "create_series", "save_session",
            "delete_session", "merge_sessions", "import_session", "versions", "open_protocol", "create_combination",
            "save_combination", "delete_combination", "read_combination", "make_combination",
            "trends", "learned", "learn", "leave_out", "next_time", "look_at_heart", "keep_heart",
            "links", "make_link", "take_back_link", "sent_back", "take_sent_back", "drop_sent_back",
            "log_file", "heart_trace",
            "camps", "create_camp", "camp", "save_camp", "delete_camp", "camp_nudges", "solve_camp", "camp_file",
            "classes", "class_needs", "read_class_line", "propose_class", "solve_class", "create_class", "class_plan",
            "save_class", "delete_class", "class_what_ifs", "change_board", "save_board", "log_class", "class_gate",
            "class_sheet",
            "camp_feeds", "make_camp_feed", "take_back_camp_feed",
        ),
        TRAINING,
    ),
    **dict.fromkeys(
        (
            "save_club", "export_club", "import_club", "erase_person", "members", "save_member", "invitations",
            "invite", "take_back_invitation",
        ),
        CLUB,
    ),
}  # fmt: skip
"""Every operation that asks who somebody is."""
OPEN = frozenset(
    {
        "me",
        "enter_demo",
        "mailbox",
        "set_up",
        "invitation",
        "join",
        "open_link",
        "speech_of_link",
        "send_back",
        "follow_camp_feed",
    }
)
"""Those that do not: the door, and what whoever has a link to a session may. Signing in, sessions and second steps are
allauth's, below `/_allauth/`."""

_STEP = re.compile(r"<(?:\w+:)?(\w+)>")
_CONVERTED = re.compile(r"\{\w+:")


def allowed(operation: str) -> frozenset[Role]:
    return ACCESS.get(operation, NOBODY)


class Member(SessionAuth):
    """Somebody of a club who may do what is asked."""

    def __init__(self) -> None:
        super().__init__()
        self.api: NinjaAPI | None = None
        """Whose operations they are; it is made with this, and so told afterwards."""

    @cached_property
    def _operations(self) -> dict[tuple[str, str], str]:
        """Every operation by method and path. From the routers: the API's whole description takes a second to make."""
        assert self.api is not None
        root = self.api.get_root_path({})
        return {
            (method, _CONVERTED.sub("{", normalize_path(f"{root}/{router.prefix}/{path}"))): (
                operation.operation_id or ""
            )
            for router in self.api._get_bound_routers()
            for path, view in router.path_operations.items()
            for operation in view.operations
            for method in operation.methods
        }

    def operation_of(self, request: HttpRequest) -> str:
        match = request.resolver_match
        path = "/" + _STEP.sub(r"{\1}", match.route) if match else ""
        return self._operations.get((request.method or "", path), "")

    def authenticate(self, request: HttpRequest, key: str | None) -> User | None:
        user = request.user
        if not isinstance(user, User) or not user.is_authenticated:
            return None
        if user.club_id is not None and Role(user.role) not in allowed(self.operation_of(request)):
            raise HttpError(
                403, f"This is not for the role of {user.role}. Ask the club's owner, who can change what you may."
            )
        return user


class Token(HttpBearer):
    """A program of a member's own, by a token: it may what its member may, within its scopes, until its last day."""

    def __init__(self, member: Member) -> None:
        super().__init__()
        self.member = member

    def authenticate(self, request: HttpRequest, token: str) -> User | None:
        found = ApiToken.objects.filter(fingerprint=fingerprint_of(token)).select_related("user__club").first()
        if found is None or not found.user.is_active or found.user.club_id is None:
            raise HttpError(
                401, "No such token. It may have been taken back: make another on the page of your account."
            )
        today = timezone.localdate()
        if found.last_day < today:
            raise HttpError(401, f"This token ended on {found.last_day}. Make another on the page of your account.")
        operation = self.member.operation_of(request)
        wanted = scopes_of(operation)
        if not wanted:
            raise HttpError(403, "No token may do this: sign in for it.")
        if not set(wanted) & set(found.scopes):
            raise HttpError(403, f"This token has not the scope {wanted[0]}. Make one that has.")
        if Role(found.user.role) not in allowed(operation):
            raise HttpError(403, f"This is not for the role of {found.user.role}. Ask the club's owner.")
        if found.used_on != today:
            ApiToken.objects.filter(pk=found.pk).update(used_on=today)
        request.user = found.user
        return found.user
