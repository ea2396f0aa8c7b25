from django.db import models

from server.accounts.models import Club
from server.accounts.owned import Owned


class BookEntry(models.Model):
    """A page of the club's book: one combination, or a set that a round draws from. Stored as techniques."""

    club = models.ForeignKey(Club, on_delete=models.CASCADE, related_name="book")
    name = models.CharField(max_length=80)
    drill = models.JSONField()
    """As in the session document."""
    tags = models.JSONField(default=list)
    note = models.TextField(max_length=1000, blank=True)
    saved_at = models.DateTimeField(auto_now=True)

    objects = Owned["BookEntry"]()

    class Meta:
        ordering = ("name", "pk")
        verbose_name_plural = "book entries"

    def __str__(self) -> str:
        return self.name
