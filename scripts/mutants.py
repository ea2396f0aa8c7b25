"""Mutants of the core: small changes to its rules, each of which some test should notice.

Every place that can be changed is found in the syntax tree: comparisons, sums, `and` and `or`, `not`, numbers, true and
false. A sample of them (the same for the same seed) or all are tried, each in a copy of the tree and a process of its
own, against the tests that come by its line, those that mirror its package first; where nothing says which come by
(tables, defaults), against all tests of its package and of those that build on it. What no test notices is listed.
"""

import argparse
import ast
import compileall
import gc
import hashlib
import json
import os
import re
import shutil
import signal
import subprocess
import sys
import tempfile
from collections import Counter
from collections.abc import Iterator
from contextlib import suppress
from dataclasses import dataclass
from importlib import import_module
from itertools import accumulate
from pathlib import Path
from py_compile import PycInvalidationMode
from random import Random
from typing import Any, NoReturn

ROOT = Path(__file__).resolve().parent.parent
PACKAGES = ("strikes", "session", "judgement", "protocols", "design", "runs", "review")
BESIDE = {
    "strikes": ("session", "formats", "runs", "judgement", "answers"),
    "session": ("strikes", "formats", "engine", "runs", "judgement", "answers"),
    "judgement": ("design", "answers", "review", "classes"),
    "protocols": ("design", "answers", "test_cli.py"),
    "design": ("answers", "classes", "camp"),
    "runs": ("review", "answers", "formats"),
    "review": ("answers", "formats", "camp"),
}
"""Further tests that speak of a package."""
OF_ALL = ("method", "test_frozen.py")
"""Tests that speak of every package: what the Method page tells of it, and that nothing in it is changed in place."""
AS_READ = ("method/test_method.py",)
"""Tests of what is made as they are read, so that coverage knows of none that comes by: quick, and always tried."""
LONGEST_S = 240
"""A turned rule may never end: then it is noticed."""
AT_ONCE = os.cpu_count() or 2
FIRST = 40
"""Tests that are read and tried before all others are."""
WANTED = 0.85
NOTICED, NOT_TRIED = 1, 9
"""How the process of a place ends where a test fails, and where the tests could not be run."""
PYTEST = ("-q", "-p", "no:cacheprovider", "-p", "no:xdist")

COMPARED: dict[type[ast.cmpop], type[ast.cmpop]] = {
    ast.Lt: ast.LtE, ast.LtE: ast.Lt, ast.Gt: ast.GtE, ast.GtE: ast.Gt, ast.Eq: ast.NotEq, ast.NotEq: ast.Eq,
    ast.In: ast.NotIn, ast.NotIn: ast.In, ast.Is: ast.IsNot, ast.IsNot: ast.Is,
}  # fmt: skip
COUNTED: dict[type[ast.operator], type[ast.operator]] = {
    ast.Add: ast.Sub, ast.Sub: ast.Add, ast.Mult: ast.Div, ast.Div: ast.Mult, ast.FloorDiv: ast.Mult, ast.Mod: ast.Mult
}  # fmt: skip


@dataclass(frozen=True)
class Mutant:
    file: Path
    line: int
    column: int
    end: tuple[int, int]
    change: str
    """What stands in its place."""
    was: str

    @property
    def package(self) -> str:
        return self.file.relative_to(ROOT / "yoisho").parts[0]

    def within(self, tree: Path) -> Path:
        """Its file in a copy of the tree; the tree itself may be worked on meanwhile."""
        return tree / self.file.relative_to(ROOT)

    def __str__(self) -> str:
        return f"{self.file.relative_to(ROOT)}:{self.line}: {self.was}  ->  {self.change}"


def _changed(node: ast.AST) -> ast.expr | None:
    """The node with its rule turned round; None where there is nothing to turn."""
    match node:
        case ast.Compare(left=left, ops=[op], comparators=right) if type(op) in COMPARED:
            return ast.Compare(left, [COMPARED[type(op)]()], right)
        case ast.BinOp(left=left, op=op, right=right) if type(op) in COUNTED:
            words = any(
                isinstance(side, ast.JoinedStr | ast.Tuple | ast.List)
                or (isinstance(side, ast.Constant) and isinstance(side.value, str))
                for side in (left, right)
            )
            return None if words else ast.BinOp(left, COUNTED[type(op)](), right)
        case ast.BoolOp(op=op, values=values):
            return ast.BoolOp(ast.Or() if isinstance(op, ast.And) else ast.And(), values)
        case ast.UnaryOp(op=ast.Not(), operand=operand):
            return operand
        case ast.IfExp(test=test, body=body, orelse=orelse):
            return ast.IfExp(test, orelse, body)
        case ast.Constant(value=bool(value)):
            return ast.Constant(not value)
        case ast.Constant(value=int(value) | float(value)):
            return ast.Constant(value + 1 if isinstance(value, int) else value * 1.5 + 0.1)
    return None


def _skipped(tree: ast.AST) -> set[int]:
    """Nodes that say nothing about the trade.

    Annotations; what error messages are made of; and that a `zip` is strict, which no input can put to the test.
    """
    out: set[int] = set()
    for node in ast.walk(tree):
        parts: list[ast.AST | None] = []
        match node:
            case ast.AnnAssign(annotation=annotation):
                parts = [annotation]
            case ast.FunctionDef(args=args, returns=returns):
                parts = [returns, *(arg.annotation for arg in (*args.args, *args.kwonlyargs))]
            case ast.Raise() | ast.JoinedStr() | ast.keyword(arg="strict"):
                parts = [node]
        out.update(id(each) for part in parts if part for each in ast.walk(part))
    return out


def _segment(lines: list[bytes], first: int, begin: int, last: int, end: int) -> str:
    """What stands from one place to another; places are counted in bytes, as the syntax tree counts them."""
    whole = b"".join(lines[first - 1 : last])
    return whole[begin : len(whole) - len(lines[last - 1]) + end].decode()


def mutants_of(file: Path) -> Iterator[Mutant]:
    source = file.read_text(encoding="utf-8")
    tree = ast.parse(source)
    lines = source.encode().splitlines(keepends=True)
    skipped = _skipped(tree)
    for node in ast.walk(tree):
        if id(node) in skipped or not isinstance(node, ast.expr):
            continue
        changed = _changed(node)
        if changed is None or node.end_lineno is None or node.end_col_offset is None:
            continue
        end = node.end_lineno, node.end_col_offset
        was = _segment(lines, node.lineno, node.col_offset, *end)
        yield Mutant(file, node.lineno, node.col_offset, end, f"({ast.unparse(changed)})", " ".join(was.split()))


def _put(mutant: Mutant, tree: Path) -> None:
    target = mutant.within(tree)
    lines = target.read_bytes().splitlines(keepends=True)
    (last, end), first = mutant.end, mutant.line
    before, after = lines[first - 1][: mutant.column], lines[last - 1][end:]
    lines[first - 1 : last] = [before + mutant.change.encode() + after]
    target.write_bytes(b"".join(lines))


class _Seen:
    """A plugin that tells of every test how long it took, and lets coverage know whose lines it sees."""

    def __init__(self, measured: Any) -> None:
        self.measured = measured
        self.took_s: dict[str, float] = {}

    def pytest_runtest_logstart(self, nodeid: str) -> None:
        self.measured.switch_context(nodeid)

    def pytest_runtest_logreport(self, report: Any) -> None:
        self.took_s[report.nodeid] = self.took_s.get(report.nodeid, 0.0) + report.duration


def look(told: Path, tests: list[str]) -> int:
    """The tests, once, in the tree that this stands in: by which lines each of them comes, and how long it takes."""
    import coverage
    import pytest

    measured = coverage.Coverage(data_file=None, source=["yoisho"], config_file=False)
    seen = _Seen(measured)
    measured.start()
    code = pytest.main([*PYTEST, *tests], plugins=[seen])
    measured.stop()
    if code:
        return int(code)
    data, by = measured.get_data(), {}
    for file in data.measured_files():
        lines = {
            line: [each for each in tests if each]
            for line, tests in data.contexts_by_lineno(file).items()
            if any(tests)
        }
        by[str(Path(file).relative_to(Path.cwd()))] = lines
    others = [name for name in sys.modules if name.split(".")[0] not in ("yoisho", "tests", "conftest", "__main__")]
    told.write_text(json.dumps({"took_s": seen.took_s, "by": by, "modules": others}))
    return 0


def looked(trees: list[Path], told: Path) -> bool:
    """Every test of the core looked at, a share of their files in each tree; whether all of them pass."""
    files = sorted(str(each.relative_to(ROOT)) for each in (ROOT / "tests/core").rglob("test_*.py"))
    parts = [told.with_suffix(f".{number}") for number in range(len(trees))]
    running = [
        subprocess.Popen([sys.executable, "scripts/mutants.py", "--look", part, *files[number :: len(trees)]], cwd=tree)
        for number, (tree, part) in enumerate(zip(trees, parts, strict=True))
    ]
    if any([each.wait() for each in running]):
        return False
    whole: dict[str, Any] = {"took_s": {}, "by": {}, "modules": {}}
    for part in parts:
        seen = json.loads(part.read_text())
        part.unlink()
        whole["took_s"] |= seen["took_s"]
        whole["modules"] |= dict.fromkeys(seen["modules"])
        for file, lines in seen["by"].items():
            known = whole["by"].setdefault(file, {})
            for line, tests in lines.items():
                known[line] = [*known.get(line, ()), *tests]
    # From here on a test that pytest does not find, as its module or its name fails with the rule, has noticed it.
    collected = [sys.executable, "-m", "pytest", "--collect-only", *PYTEST, *whole["took_s"]]
    subprocess.run(collected, cwd=trees[0], stdout=subprocess.DEVNULL, check=True)
    told.write_text(json.dumps({**whole, "modules": [*whole["modules"]]}))
    return True


@dataclass(frozen=True)
class Known:
    """Of every test of the core how long it takes, and by line of which file it comes."""

    took_s: dict[str, float]
    by: dict[str, dict[str, list[str]]]
    within_s: float
    """Tests of this length are tried on a place, those that may be slow last."""

    def of_package(self, *packages: str) -> list[str]:
        ways = tuple(f"tests/core/{each}" for each in packages)
        return [each for each in self.took_s if each.startswith(ways)]

    def tests_of(self, mutant: Mutant) -> list[str]:
        """Those that could notice it, the likely and the quick first.

        All of its own package are among them: of what is remembered only the first test comes by the lines.
        """
        lines = self.by.get(str(mutant.file.relative_to(ROOT)), {})
        coming = {each for line in range(mutant.line, mutant.end[0] + 1) for each in lines.get(str(line), ())}
        if not coming:
            coming = {each for tests in lines.values() for each in tests}
            coming |= {*self.of_package(mutant.package, *BESIDE[mutant.package], *OF_ALL)}
        coming |= {*self.of_package(*AS_READ)}
        own, of_all = self.of_package(mutant.package), self.of_package(*OF_ALL)
        near, told, far, rest = (
            sorted(some, key=lambda each: self.took_s[each])
            for some in (coming.intersection(own), coming.intersection(of_all), coming, own)
        )
        tests = [*dict.fromkeys([*near[:FIRST], *told, *near, *far, *rest])]
        lasts = accumulate(self.took_s[each] for each in tests)
        return [each for each, last_s in zip(tests, lasts, strict=True) if last_s <= self.within_s or each in told]


def _try(mutant: Mutant, tree: Path, tests: list[str]) -> NoReturn:
    """In a process of its own: ends with 0 where no test notices."""
    import pytest

    os.setsid()
    signal.alarm(LONGEST_S)
    os.chdir(tree)
    silent = os.open(os.devnull, os.O_RDWR)
    for stream in (0, 1, 2):
        os.dup2(silent, stream)
    _put(mutant, tree)
    sys.path.insert(0, str(tree))
    for some in (tests[:FIRST], tests[FIRST:]):
        if some and pytest.main(["-x", *PYTEST, *some]):
            os._exit(NOTICED)
    os._exit(0)


def _copy(tree: Path) -> None:
    """What the core's tests need, its rules compiled by what stands in them: one that is turned is compiled anew."""
    for part in ("yoisho", "tests", "docs"):
        shutil.copytree(ROOT / part, tree / part, ignore=shutil.ignore_patterns("__pycache__", "*.png"))
    for file in ("pyproject.toml", "web/src/api/vectors.json", "scripts/mutants.py"):
        (tree / file).parent.mkdir(parents=True, exist_ok=True)
        shutil.copyfile(ROOT / file, tree / file)
    compileall.compile_dir(tree / "yoisho", quiet=1, invalidation_mode=PycInvalidationMode.CHECKED_HASH)


def _digest(tree: Path) -> str:
    """Of all that the tests read: what was seen of them holds while it is the same."""
    files = sorted(each for each in tree.rglob("*") if each.is_file() and each.suffix != ".pyc")
    return hashlib.sha256(
        b"".join(str(each.relative_to(tree)).encode() + each.read_bytes() for each in files)
    ).hexdigest()


def noticed_of(chosen: list[Mutant], trees: list[Path], known: Known) -> Iterator[tuple[Mutant, bool]]:
    """Each with whether a test fails, or never ends, once it stands; as many at once as there are trees."""
    left, free, under_way = chosen[::-1], list(trees), dict[int, tuple[Mutant, Path, bytes]]()
    while left or under_way:
        while left and free:
            mutant, tree = left.pop(), free.pop()
            was = mutant.within(tree).read_bytes()
            child = os.fork()
            if not child:
                try:
                    _try(mutant, tree, known.tests_of(mutant))
                finally:
                    os._exit(NOT_TRIED)
            under_way[child] = mutant, tree, was
        child, status = os.wait()
        mutant, tree, was = under_way.pop(child)
        with suppress(ProcessLookupError):
            os.killpg(child, signal.SIGKILL)
        mutant.within(tree).write_bytes(was)
        free.append(tree)
        if os.waitstatus_to_exitcode(status) == NOT_TRIED:
            raise RuntimeError(f"{mutant} could not be tried")
        yield mutant, status != 0


def _listed(told: Path, every: list[Mutant]) -> list[Mutant]:
    """Those of an earlier run's lines that were not noticed, wherever their lines have moved to in their file."""
    by_words = {re.sub(r":\d+: ", ": ", str(each), count=1): each for each in every}
    by_place = {str(each): each for each in every}
    lines = [line.removeprefix("not noticed  ") for line in told.read_text().splitlines() if " -> " in line]
    found = [by_place.get(line) or by_words.get(re.sub(r":\d+: ", ": ", line, count=1)) for line in lines]
    return [each for each in found if each]


def main() -> int:
    asked = argparse.ArgumentParser()
    asked.add_argument("--count", type=int, default=200, help="how many are tried; 0 for all")
    asked.add_argument("--only", default="", help="packages, with commas between")
    asked.add_argument("--seed", type=int, default=1)
    asked.add_argument("--within", type=float, default=float("inf"), help="seconds of tests for a place at most")
    asked.add_argument("--again", type=Path, help="what an earlier run printed: those that it did not notice")
    options = asked.parse_args()
    packages = options.only.split(",") if options.only else PACKAGES
    files = sorted(file for each in packages for file in (ROOT / "yoisho" / each).rglob("*.py"))
    every = [mutant for file in files for mutant in mutants_of(file)]
    chosen = Random(options.seed).sample(every, min(options.count or len(every), len(every)))
    if options.again:
        chosen = _listed(options.again, every)
    print(f"{len(every)} places could be turned round; {len(chosen)} of them are tried", flush=True)
    # The core is tried alone: whatever points to Django or to a server is left out.
    for name in ("PYTEST_ADDOPTS", "DJANGO_SETTINGS_MODULE"):
        os.environ.pop(name, None)
    with tempfile.TemporaryDirectory() as place:
        trees = [Path(place) / str(number) for number in range(AT_ONCE)]
        for tree in trees:
            _copy(tree)
        told = ROOT / ".state" / "mutants" / f"{_digest(trees[0])}.json"
        told.parent.mkdir(parents=True, exist_ok=True)
        if not told.exists() and not looked(trees, told):
            print("The tests fail before anything is turned round: mend them first.")
            return 1
        seen = json.loads(told.read_text())
        for name in seen["modules"]:
            # Held by every process from the first: only the core and its tests are read anew.
            with suppress(Exception):
                import_module(name)
        gc.collect()
        gc.freeze()
        known = Known(seen["took_s"], seen["by"], options.within)
        results: dict[Mutant, bool] = {}
        for mutant, found in noticed_of(chosen, trees, known):
            results[mutant] = found
            if not found:
                print(f"not noticed  {mutant}", flush=True)
            if len(results) % 20 == 0:
                print(f"{len(results)} of {len(chosen)} tried, {sum(results.values())} noticed", flush=True)
    for package in packages:
        count = Counter(found for mutant, found in results.items() if mutant.package == package)
        if count:
            print(f"{package}: {count[True]} of {count.total()} noticed")
    share = sum(results.values()) / len(results)
    print(f"{share:.1%} noticed; {WANTED:.0%} is wanted")
    return int(share < WANTED)


if __name__ == "__main__":
    sys.exit(look(Path(sys.argv[2]), sys.argv[3:]) if sys.argv[1:2] == ["--look"] else main())
