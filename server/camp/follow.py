"""What happens to a camp's day elsewhere: taken off in Today it is let go in the camp, put back it stands again."""

from typing import Any

from django.db.models import F
from django.db.models.signals import post_save, pre_delete
from django.dispatch import receiver

from server.camp.models import CampSession
from server.today.models import Planned


@receiver(pre_delete, sender=Planned)
def let_go(instance: Planned, **_: Any) -> None:
    """Calendars hear of it. What the camp itself takes out is cancelled besides."""
    CampSession.objects.filter(planned=instance, cancelled_at=None).update(skipped=True, sequence=F("sequence") + 1)


@receiver(post_save, sender=Planned)
def stand_again(instance: Planned, created: bool, **_: Any) -> None:
    if created:
        gone = CampSession.objects.filter(session=instance.session_id, planned=None, cancelled_at=None)
        gone.update(planned=instance, skipped=False, on=instance.on, sequence=F("sequence") + 1)
