import os

from django.core.wsgi import get_wsgi_application

from yoisho.engine.person import person
from yoisho.engine.readout import read
from yoisho.session.interval import Interval
from yoisho.session.timeline import unroll

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "server.settings")
application = get_wsgi_application()

# The engine's compiled code is loaded here, once and before the workers part, not in somebody's first request.
read(person(), unroll(Interval(10, "power")))
