import os
from threading import Timer

from server.start import loading

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "server.settings")
STOCKED_AFTER_S = 10.0
"""A server that has just come back has answers to give first."""


def warm() -> None:
    """Load what is compiled and read once before the workers part, not in somebody's first request."""
    from django.urls import get_resolver

    from yoisho.engine.person import person
    from yoisho.engine.readout import read
    from yoisho.session.shorthand import assist
    from yoisho.session.shorthand import read as read_line
    from yoisho.session.timeline import unroll

    _ = get_resolver().url_patterns
    read(person(), unroll(read_line("10 power")))
    assist.spans("10 power")


def stock() -> None:
    """Fill the shelves of protocols, for whoever opens them first."""
    from server.library.api import shelf
    from yoisho.strikes.schools import SCHOOLS

    for school in SCHOOLS:
        shelf(school)


def stock_later() -> None:
    """In each worker, while it answers already."""
    later = Timer(STOCKED_AFTER_S, stock)
    later.daemon = True
    later.start()


with loading():
    from django.core.wsgi import get_wsgi_application

    application = get_wsgi_application()
    warm()
os.register_at_fork(after_in_child=stock_later)
