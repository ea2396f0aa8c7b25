"""Mutants of the core: small changes to its rules, each of which some test should notice.

Every place that can be changed is found in the syntax tree: comparisons, sums, `and` and `or`, `not`, numbers, true and
false, words. Of all of them a sample is drawn (the same for the same seed), each is tried in a copy of the tree against
the tests that mirror its package, and those that no test notices are listed with their line.
"""

import argparse
import ast
import os
import shutil
import subprocess
import sys
import tempfile
from collections import Counter
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from pathlib import Path
from queue import Queue
from random import Random

ROOT = Path(__file__).resolve().parent.parent
PACKAGES = ("strikes", "session", "judgement", "protocols", "design", "runs", "review")
BESIDE = {"session": ("strikes",), "protocols": ("design",), "review": ("runs",)}
"""Further tests that speak of a package."""
OF_ALL = ("method", "test_frozen.py")
"""Tests that speak of every package: what the Method page tells of it, and that nothing in it is changed in place."""
LONGEST_S = 240
"""A turned rule may never end: then it is noticed."""
WHOLE_S = 1800
"""All that is tried, once, before anything is turned round."""
WANTED = 0.85

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
    target = tree / mutant.file.relative_to(ROOT)
    lines = mutant.file.read_bytes().splitlines(keepends=True)
    (last, end), first = mutant.end, mutant.line
    before, after = lines[first - 1][: mutant.column], lines[last - 1][end:]
    lines[first - 1 : last] = [before + mutant.change.encode() + after]
    target.write_bytes(b"".join(lines))


def _tested(tree: Path, *packages: str, longest_s: int = LONGEST_S) -> subprocess.CompletedProcess[bytes]:
    """The tests of the packages, in the tree."""
    command = [sys.executable, "-m", "pytest", "-x", "-q", "-p", "no:cacheprovider"]
    tests = [f"tests/core/{each}" for each in packages]
    # The core is tried alone: whatever points to Django or to a server is left out.
    left_out = {"PYTEST_ADDOPTS", "DJANGO_SETTINGS_MODULE"}
    plain = {name: value for name, value in os.environ.items() if name not in left_out}
    return subprocess.run([*command, *tests], cwd=tree, capture_output=True, timeout=longest_s, env=plain)


def noticed(mutant: Mutant, tree: Path) -> bool:
    """Whether a test fails, or never ends, once the mutant stands in the tree."""
    _put(mutant, tree)
    try:
        return _tested(tree, mutant.package, *BESIDE.get(mutant.package, ()), *OF_ALL).returncode != 0
    except subprocess.TimeoutExpired:
        return True
    finally:
        shutil.copyfile(mutant.file, tree / mutant.file.relative_to(ROOT))


def main() -> int:
    asked = argparse.ArgumentParser()
    asked.add_argument("--count", type=int, default=200, help="how many are tried")
    asked.add_argument("--only", default="", help="packages, with commas between")
    asked.add_argument("--seed", type=int, default=1)
    options = asked.parse_args()
    packages = options.only.split(",") if options.only else PACKAGES
    files = sorted(file for each in packages for file in (ROOT / "yoisho" / each).rglob("*.py"))
    every = [mutant for file in files for mutant in mutants_of(file)]
    chosen = Random(options.seed).sample(every, min(options.count, len(every)))
    print(f"{len(every)} places could be turned round; {len(chosen)} of them are tried", flush=True)
    with tempfile.TemporaryDirectory() as place:
        trees: Queue[Path] = Queue()
        for number in range(2):
            tree = Path(place) / str(number)
            for part in ("yoisho", "tests", "docs"):
                shutil.copytree(ROOT / part, tree / part, ignore=shutil.ignore_patterns("__pycache__", "*.png"))
            for file in ("pyproject.toml", "web/src/api/vectors.json"):
                (tree / file).parent.mkdir(parents=True, exist_ok=True)
                shutil.copyfile(ROOT / file, tree / file)
            trees.put(tree)
        whole = _tested(tree, *packages, *OF_ALL, longest_s=WHOLE_S)
        if whole.returncode:
            print(whole.stdout.decode() + whole.stderr.decode())
            print("The tests fail before anything is turned round: mend them first.")
            return 1

        done: list[bool] = []

        def tried(mutant: Mutant) -> bool:
            tree = trees.get()
            try:
                found = noticed(mutant, tree)
            finally:
                trees.put(tree)
            done.append(found)
            if not found:
                print(f"not noticed  {mutant}", flush=True)
            if len(done) % 20 == 0:
                print(f"{len(done)} of {len(chosen)} tried, {sum(done)} noticed", flush=True)
            return found

        with ThreadPoolExecutor(2) as pool:
            results = list(pool.map(tried, chosen))
    for package in packages:
        count = Counter(found for mutant, found in zip(chosen, results, strict=True) if mutant.package == package)
        if count:
            print(f"{package}: {count[True]} of {count.total()} noticed")
    share = sum(results) / len(results)
    print(f"{share:.0%} noticed; {WANTED:.0%} is wanted")
    return int(share < WANTED)


if __name__ == "__main__":
    sys.exit(main())
