import fcntl
from collections.abc import Callable, Generator
from pathlib import Path

import pytest
from hypothesis import settings

from server.start import loading

settings.register_profile("test", deadline=None, max_examples=60, derandomize=True)
settings.load_profile("test")

MIGRATED = "test_migrated"
Once = Callable[[str, Callable[[Path], object]], Path]


@pytest.hookimpl(wrapper=True)
def pytest_collection() -> Generator[None, object, object]:
    """What is loaded for the tests stays, as in a server."""
    with loading():
        return (yield)


def is_one_of_several(config: pytest.Config) -> bool:
    return hasattr(config, "workerinput")


@pytest.fixture(scope="session")
def once(request, tmp_path_factory) -> Once:
    """`once(name, make)`: a file that the first of the workers makes, and the others find."""
    own = tmp_path_factory.getbasetemp()
    home = own.parent if is_one_of_several(request.config) else own

    def found(name: str, make: Callable[[Path], object]) -> Path:
        path = home / name
        with (home / f"{name}.lock").open("w") as lock:
            fcntl.flock(lock, fcntl.LOCK_EX)
            if not path.exists():
                make(path)
        return path

    return found


@pytest.fixture(scope="session")
def django_db_modify_db_settings(
    request, django_db_modify_db_settings_parallel_suffix, django_db_blocker, once
) -> None:
    """Of several workers one goes through the migrations, which take seconds; each has a copy of what comes of them."""
    if not is_one_of_several(request.config):
        return
    from django.db import connection

    known = connection.settings_dict

    def migrate(done: Path) -> None:
        name, own = known["NAME"], known["TEST"]["NAME"]
        known["TEST"]["NAME"] = MIGRATED
        with django_db_blocker.unblock():
            connection.creation.create_test_db(verbosity=0, autoclobber=True, serialize=False)
            connection.close()
            connection.close_pool()
        known["NAME"], known["TEST"]["NAME"] = name, own
        done.touch()

    once("migrated", migrate)
    known["TEST"]["TEMPLATE"] = MIGRATED
