"""What leaves the hall: links to a session, and what comes back by them."""

from secrets import token_urlsafe

from django.db import models
from django.db.models import Q
from django.utils import timezone

from server.accounts.models import Club, User
from server.accounts.owned import Owned
from server.roster.models import Person
from server.sessions.models import Session

TOKEN_BYTES = 18
"""Of chance in a link: nobody guesses 144 bits."""


def new_token() -> str:
    return token_urlsafe(TOKEN_BYTES)


class ShareLink(models.Model):
    """A way to one session for whoever has the link: to read it, to run it, and to send back how it went."""

    club = models.ForeignKey(Club, on_delete=models.CASCADE, related_name="share_links")
    session = models.ForeignKey(Session, on_delete=models.CASCADE, related_name="share_links")
    person = models.ForeignKey(Person, on_delete=models.SET_NULL, null=True, related_name="+")
    """Whom it is for: what comes back is theirs. Never shown to whoever opens it."""
    token = models.CharField(max_length=32, unique=True, default=new_token)
    made_by = models.ForeignKey(User, on_delete=models.SET_NULL, null=True, related_name="+")
    made_at = models.DateTimeField(auto_now_add=True)
    last_day = models.DateField(null=True)
    """The last day on which it opens, by the clock of the club; None for no end."""
    revoked_at = models.DateTimeField(null=True)
    openings = models.PositiveIntegerField(default=0)

    objects = Owned["ShareLink"]()

    class Meta:
        ordering = ("-made_at", "-pk")

    def __str__(self) -> str:
        return f"{self.session}, a link of {self.made_at:%Y-%m-%d}"

    @property
    def ended(self) -> str:
        """Why it opens nothing any more; empty while it does."""
        if self.revoked_at:
            return "taken back"
        if self.last_day and self.last_day < timezone.localdate():
            return "over"
        return ""

    @classmethod
    def live_of(cls, session: Session) -> "ShareLink | None":
        """The session's newest link for nobody in particular that opens today."""
        open_today = Q(last_day=None) | Q(last_day__gte=timezone.localdate())
        return cls.objects.filter(open_today, session=session, person=None, revoked_at=None).first()


class SentBack(models.Model):
    """How a session went, as an athlete has sent it by a link. It waits until a coach takes it into the log."""

    club = models.ForeignKey(Club, on_delete=models.CASCADE, related_name="sent_back")
    link = models.ForeignKey(ShareLink, on_delete=models.SET_NULL, null=True, related_name="sent_back")
    """Gone with its session: what was sent stays."""
    person = models.ForeignKey(Person, on_delete=models.SET_NULL, null=True, related_name="+")
    """Whom the link was for."""
    run_id = models.UUIDField()
    """Made where it was run, so that what is sent twice is kept once."""
    received_at = models.DateTimeField(auto_now_add=True)
    name = models.CharField(max_length=60, blank=True)
    """Who says to be it."""
    entry = models.JSONField()
    """As it would be logged: the plan that was run with it."""

    objects = Owned["SentBack"]()

    class Meta:
        ordering = ("-received_at",)
        constraints = (models.UniqueConstraint(fields=["club", "run_id"], name="sent_back_once"),)


class Music(models.Model):
    """A coach's own music, to lie under cue tracks; cleared a week after it was brought."""

    club = models.ForeignKey(Club, on_delete=models.CASCADE, related_name="music")
    digest = models.CharField(max_length=64)
    """Of its content: the name of its file."""
    name = models.CharField(max_length=120)
    seconds = models.FloatField()
    brought_at = models.DateTimeField(auto_now_add=True)

    objects = Owned["Music"]()

    class Meta:
        ordering = ("-brought_at", "-pk")


class CueTrack(models.Model):
    """A session as a sound file: asked for, made by the worker, fetched, and cleared after a week."""

    class State(models.TextChoices):
        WAITING = "waiting"
        MAKING = "making"
        DONE = "done"
        FAILED = "failed"
        CANCELLED = "cancelled"

    club = models.ForeignKey(Club, on_delete=models.CASCADE, related_name="cue_tracks")
    session = models.ForeignKey(Session, on_delete=models.CASCADE, related_name="cue_tracks")
    form = models.CharField(max_length=8)
    pulse = models.BooleanField(default=False)
    """Beaten as well."""
    music = models.ForeignKey(Music, on_delete=models.SET_NULL, null=True, related_name="+")
    revision = models.PositiveIntegerField()
    """Of the session, as it was asked for."""
    document = models.JSONField()
    """The session as it stood then."""
    calls = models.JSONField(default=dict)
    """What was called in it then."""
    state = models.CharField(max_length=10, choices=State, default=State.WAITING)
    progress = models.FloatField(default=0.0)
    """0 to 1."""
    said = models.CharField(max_length=300, blank=True)
    """Why it failed."""
    digest = models.CharField(max_length=64, blank=True)
    """Of its file, once it is made."""
    asked_by = models.ForeignKey(User, on_delete=models.SET_NULL, null=True, related_name="+")
    asked_at = models.DateTimeField(auto_now_add=True)

    objects = Owned["CueTrack"]()

    class Meta:
        ordering = ("-asked_at", "-pk")

    @property
    def over(self) -> bool:
        """Nothing more will come of it."""
        return self.state in (self.State.DONE, self.State.FAILED, self.State.CANCELLED)
