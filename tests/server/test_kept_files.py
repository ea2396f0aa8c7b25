"""Made files are kept by Django's STORAGES: any backend will do, and a file is whole or not there."""

import pytest
from django.core.files.base import ContentFile
from django.core.files.storage import storages

from server.sendout.tasks import make_track

MEMORY = {"BACKEND": "django.core.files.storage.InMemoryStorage"}


@pytest.fixture
def elsewhere(settings) -> None:
    """As if an object store were set, which has no paths."""
    settings.STORAGES = {**settings.STORAGES, "speech": MEMORY, "tracks": MEMORY}


def test_speech_tracks_and_music_need_no_folder_of_this_machine(coach, elsewhere, settings):
    saved = coach.session("20 power, 10 rest")
    plan = coach.get(f"sessions/{saved['id']}/run").json()
    phrase = next(iter(plan["speech"].values()))
    spoken = b"".join(coach.get(f"speech/{phrase}").streaming_content)
    track = coach.post("tracks", {"session_id": saved["id"], "form": "wav"}).json()
    make_track(track_id=track["id"])
    assert coach.get(f"tracks/{track['id']}").json()["state"] == "done"
    sound = b"".join(coach.get(f"tracks/{track['id']}/file").streaming_content)
    with_music = ContentFile(sound, name="own.wav")
    music = coach.client.post("/api/music", {"file": with_music}).json()
    under = coach.post("tracks", {"session_id": saved["id"], "form": "wav", "music_id": music["id"]}).json()
    make_track(track_id=under["id"])
    assert coach.get(f"tracks/{under['id']}").json()["state"] == "done"
    other = b"".join(coach.get(f"tracks/{under['id']}/file").streaming_content)
    assert spoken[:4] == sound[:4] == other[:4] == b"RIFF"
    assert other != sound
    assert not settings.SPEECH.exists(), "nothing was laid beside it"


class Breaks(ContentFile):
    """A file whose source breaks off in the middle."""

    def chunks(self, chunk_size=None):
        yield b"half of i"
        raise OSError(28, "No space left on device")


def test_a_file_that_breaks_off_is_not_there_and_what_was_there_stays(settings, tmp_path):
    settings.TRACKS = tmp_path
    kept = storages["tracks"]
    with pytest.raises(OSError, match="No space"):
        kept.save("music/new", Breaks(b"x"))
    kept.save("music/old", ContentFile(b"whole"))
    with pytest.raises(OSError, match="No space"):
        kept.save("music/old", Breaks(b"x"))
    assert kept.listdir("music")[1] == ["old"]
    assert kept.open("music/old").read() == b"whole"
    assert kept.save("music/old", ContentFile(b"newer")) == "music/old"
    assert kept.open("music/old").read() == b"newer"
