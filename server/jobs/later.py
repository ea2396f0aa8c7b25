"""Asking for work that nobody waits for."""

import logging
from typing import Any

from django.db import Error, transaction
from procrastinate.exceptions import AlreadyEnqueued, ConnectorException
from procrastinate.tasks import Task

logger = logging.getLogger(__name__)


def later(task: Task[..., Any, Any], once: str, **arguments: Any) -> None:
    """Queues a task as soon as what is being saved is saved; what waits already under the same name only once.

    Nothing that is asked for here may stop what it is asked beside: where it cannot be queued, that is logged.
    """

    def queue() -> None:
        try:
            with transaction.atomic():
                task.configure(queueing_lock=once).defer(**arguments)
        except AlreadyEnqueued:
            pass
        except (ConnectorException, Error) as error:
            logger.warning("%s could not be queued: %s", task.name, error)

    transaction.on_commit(queue)
