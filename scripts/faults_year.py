"""A year of a club backed up, spoilt, and put back: compared row by row, every table."""

import hashlib
import os
import subprocess
import sys
import tempfile
import time
from pathlib import Path

from database import Cluster

ROOT = Path(__file__).resolve().parent.parent
sys.path.insert(0, str(ROOT))
SPOILT = (
    "delete from logbook_logentry",
    "update training_session set target = 'skill'",
    "drop table runs_journal cascade",
)


def rows(cluster: Cluster) -> dict[str, tuple[int, str]]:
    """Of each table how many rows it has, and a digest of all of them, each as PostgreSQL writes it."""
    named = "select tablename from pg_tables where schemaname = 'public' order by 1"
    found = {}
    for table in cluster.psql("yoisho", named).stdout.split():
        told = cluster.psql("yoisho", f'select md5(row::text) from "{table}" row order by 1').stdout.encode()
        found[table] = len(told.split()), hashlib.sha256(told).hexdigest()
    return found


def size_mb(cluster: Cluster) -> float:
    return int(cluster.psql("yoisho", "select pg_database_size('yoisho')").stdout) / 1e6


def main() -> int:
    name = os.environ["HALL"]
    cluster = Cluster(name)
    cluster.destroy()
    os.environ |= {"YOISHO_DATABASE": cluster.start(), "YOISHO_SECRET": "a trial's own", "YOISHO_DEMO": "1",
                   "DJANGO_SETTINGS_MODULE": "server.settings"}  # fmt: skip
    import django

    django.setup()
    from club_year import fill
    from django.core.management import call_command
    from django.db import connections

    call_command("load_demo")
    empty_mb = size_mb(cluster)
    fill()
    year_mb = size_mb(cluster) - empty_mb
    connections.close_all()
    before = rows(cluster)
    told = {**os.environ, "DATABASE": name}
    with tempfile.TemporaryDirectory() as place:
        file = Path(place) / "year.dump"
        began = time.monotonic()
        subprocess.run([ROOT / "scripts/backup"], env={**told, "FILE": str(file)}, check=True)
        backed_up_s = time.monotonic() - began
        for query in SPOILT:
            cluster.psql("yoisho", query)
        spoilt = rows(cluster)
        began = time.monotonic()
        subprocess.run([ROOT / "scripts/restore"], env={**told, "FILE": str(file)}, check=True)
        restored_s = time.monotonic() - began
    cluster.start()
    after = rows(cluster)
    differ = sorted(table for table in before.keys() | after.keys() if before.get(table) != after.get(table))
    for table in differ:
        print(f"  WRONG  {table}: {before.get(table)} before, {after.get(table)} after")
    total = sum(count for count, _ in before.values())
    print(f"A year of a club, {total} rows in {len(before)} tables, {year_mb:.0f} MB: backed up in {backed_up_s:.1f}, "
          f"restored in {restored_s:.1f} s; {len(differ)} tables differ")  # fmt: skip
    if spoilt == before:
        print("  WRONG  nothing was spoilt: nothing was tried")
    return int(bool(differ) or spoilt == before)


if __name__ == "__main__":
    raise SystemExit(main())
