"""Learn from the logs of simulated people whose true capacities are known, and write down how near it comes.

`yoisho/review/proven.json` holds the result, which the Method page shows.
"""

import json
import os
import sys
from concurrent.futures import ProcessPoolExecutor
from pathlib import Path
from typing import Any

ROOT = Path(__file__).resolve().parent.parent
sys.path.insert(0, str(ROOT))

from yoisho.engine.person import person  # noqa: E402
from yoisho.review.proof import WORLDS, Found, find_out, gains_of, proof_of  # noqa: E402

RESULT = ROOT / "yoisho/review/proven.json"
LOGS = 12
FIRST_SEED = 1000


def one(asked: tuple[str, int]) -> Found:
    world, seed = asked
    return find_out(person(), seed, LOGS, WORLDS[world])


def rounded(row: object) -> dict[str, Any]:
    return {name: round(value, 4) if isinstance(value, float) else value for name, value in vars(row).items()}


def main() -> int:
    people = int(sys.argv[1])
    worlds = {}
    with ProcessPoolExecutor(os.cpu_count()) as pool:
        for world in WORLDS:
            found = []
            for each in pool.map(one, [(world, FIRST_SEED + n) for n in range(people)]):
                found.append(each)
                print(f"\r{world}: {len(found)} of {people} people", end="", flush=True)
            print()
            worlds[world] = {
                "capacities": [rounded(row) for row in proof_of(found)],
                "forecasts": [rounded(row) for row in gains_of(found)],
            }
    result = {"people": people, "logs": LOGS, "worlds": worlds}
    RESULT.write_text(json.dumps(result, indent=1, ensure_ascii=False) + "\n", encoding="utf-8")
    print(f"Written to {RESULT.relative_to(ROOT)}")
    return 0


if __name__ == "__main__":
    sys.exit(main())
