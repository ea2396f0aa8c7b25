"""Work that is told while it goes on: each line once, a sign of life between them, the answer or the error last."""

import time

from ninja import Schema

from server.streams import STILL_HERE, streamed


class Line(Schema):
    words: str


def told(work):
    answer = streamed(work, Line(words="begun"), lambda found: Line(words=f"last: {found}"))
    return list(answer.streaming_content)


def test_every_line_comes_once_and_silence_has_a_sign_of_life(monkeypatch, db):
    monkeypatch.setattr("server.streams.BEAT_S", 0.02)

    def work(tell):
        tell(Line(words="half"))
        time.sleep(0.2)
        return 42

    found = told(work)
    assert [line for line in found if line != STILL_HERE] == [
        b'{"words":"begun"}\n', b'{"words":"half"}\n', b'{"words":"last: 42"}\n',
    ]  # fmt: skip
    assert found.count(STILL_HERE) >= 2


def test_an_error_is_the_last_line_and_work_that_nobody_waits_for_stops(db):
    def breaks(tell):
        raise ValueError("torn")

    assert told(breaks)[-1] == b'{"words":"last: torn"}\n'
    heard = []

    def goes_on(tell):
        for number in range(500):
            heard.append(number)
            tell(Line(words=str(number)))
            time.sleep(0.005)

    answer = streamed(goes_on, Line(words="begun"), lambda found: Line(words="over"))
    lines = iter(answer.streaming_content)
    next(lines), next(lines)
    answer.close()
    time.sleep(0.1)
    count = len(heard)
    time.sleep(0.1)
    assert len(heard) <= count + 1 < 500
