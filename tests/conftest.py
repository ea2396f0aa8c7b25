from collections.abc import Generator

import pytest
from hypothesis import settings

from server.start import loading

settings.register_profile("test", deadline=None, max_examples=60, derandomize=True)
settings.load_profile("test")


@pytest.hookimpl(wrapper=True)
def pytest_collection() -> Generator[None, object, object]:
    """What is loaded for the tests stays, as in a server."""
    with loading():
        return (yield)
