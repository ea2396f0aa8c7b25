"""How a process starts."""

import gc

from server.start import loading


def test_what_is_loaded_is_left_alone_by_a_collector_that_works_on_after_it():
    frozen = gc.get_freeze_count()
    with loading():
        assert not gc.isenabled()
        loaded = [[] for _ in range(1000)]
    assert gc.isenabled()
    assert gc.get_freeze_count() >= frozen + len(loaded)
