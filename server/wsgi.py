import gc
import os

from django.core.wsgi import get_wsgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "server.settings")
application = get_wsgi_application()


def warm() -> None:
    """Load what is compiled and read once before the workers part, not in somebody's first request."""
    from django.urls import get_resolver

    from server.library.api import shelf
    from yoisho.engine.person import person
    from yoisho.engine.readout import read
    from yoisho.session.shorthand import assist
    from yoisho.session.shorthand import read as read_line
    from yoisho.session.timeline import unroll
    from yoisho.strikes.schools import SCHOOLS

    _ = get_resolver().url_patterns
    read(person(), unroll(read_line("10 power")))
    assist.spans("10 power")
    for school in SCHOOLS:
        shelf(school)


def settle() -> None:
    """What is loaded by now stays: the collector need not look through it again in the middle of an answer."""
    gc.collect()
    gc.freeze()


warm()
settle()
