import gc
import os
from threading import Thread

# What is imported stays: a collector that looks through it while it grows takes a quarter of the start.
gc.disable()

from django.core.wsgi import get_wsgi_application  # noqa: E402

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "server.settings")
application = get_wsgi_application()


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
    """Fill the shelves of protocols while a worker answers already: nobody waits for them after a start."""
    from server.library.api import shelf
    from yoisho.strikes.schools import SCHOOLS

    for school in SCHOOLS:
        shelf(school)


def settle() -> None:
    """What is loaded by now stays: the collector need not look through it again in the middle of an answer."""
    gc.freeze()
    gc.enable()


warm()
settle()
os.register_at_fork(after_in_child=lambda: Thread(target=stock, name="stock", daemon=True).start())
