import gc

from hypothesis import settings

settings.register_profile("test", deadline=None, max_examples=60, derandomize=True)
settings.load_profile("test")


def pytest_collection() -> None:
    """What is loaded for the tests stays: the collector looks through it neither while it grows nor during a test."""
    gc.disable()


def pytest_collection_finish() -> None:
    gc.freeze()
    gc.enable()
