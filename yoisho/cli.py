"""The command line on the core: `python -m yoisho parse`, `evaluate`, `claim`, `simulate`, `calibrate` and others."""

import argparse
import json
import sys
from collections.abc import Sequence as Arguments
from typing import Any, get_args

from yoisho.camp.camp import CampError
from yoisho.camp_command import camp_command
from yoisho.commands import (
    CommandError,
    claim_command,
    combination_command,
    evaluate_command,
    method_command,
    parse_command,
    schema_command,
    shared_command,
    simulate_command,
)
from yoisho.engine.field_tests import TestResultError
from yoisho.engine.parameters import ALL_THAT_CAN_BE_DELIVERED_FRAC, REFERENCE_VO2MAX_ML_KG_MIN
from yoisho.engine.person import Level, PersonError, Sex
from yoisho.engine.readout import NoWorkError
from yoisho.engine.stores import ProfileError
from yoisho.file_commands import calibrate_command
from yoisho.judgement import claims as claim
from yoisho.judgement.targets import TARGETS
from yoisho.rotation.group import ClassError
from yoisho.rotation_command import rotation_command
from yoisho.session import shorthand
from yoisho.session.clock import clock
from yoisho.session.interval import SessionError
from yoisho.session.rules import RULE_SETS
from yoisho.strikes import notation
from yoisho.strikes.counts import Stance
from yoisho.strikes.line import LineError
from yoisho.strikes.schools import DEFAULT_SCHOOL, SCHOOLS
from yoisho.strikes.tempo import TEMPOS


def _plain(result: dict[str, Any], indent: str = "") -> list[str]:
    """The result for people: long lists are left to --json."""
    lines = []
    for key, value in result.items():
        name = key.replace("_", " ")
        if isinstance(value, dict) and set(value) == {"value", "low", "high"}:
            lines.append(f"{indent}{name}: {value['value']:.3g} ({value['low']:.3g} to {value['high']:.3g})")
        elif isinstance(value, dict):
            lines += [f"{indent}{name}", *_plain(value, indent + "  ")] if key not in ("tree", "stores") else []
        elif isinstance(value, list):
            texts = [f"{indent}  - {item['text']}" for item in value if isinstance(item, dict) and "text" in item]
            lines += [f"{indent}{name}", *texts] if texts else []
        elif isinstance(value, int | float) and key.endswith("_s"):
            lines.append(f"{indent}{name.removesuffix(' s')}: {clock(value)}")
        else:
            lines.append(f"{indent}{name}: {value:.3g}" if isinstance(value, float) else f"{indent}{name}: {value}")
    return lines


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="python -m yoisho", description="Striking sessions, measured.")
    commands = parser.add_subparsers(dest="command", required=True)
    as_json = argparse.ArgumentParser(add_help=False)
    as_json.add_argument("--json", action="store_true", help="print JSON")

    parse = commands.add_parser("parse", parents=[as_json], help="read a line of shorthand")
    parse.add_argument("text", help=f"such as '{shorthand.EXAMPLE}'")
    parse.add_argument("--school", choices=sorted(SCHOOLS), default=DEFAULT_SCHOOL, help="of numbers beyond six")
    parse.set_defaults(run=parse_command)

    someone = argparse.ArgumentParser(add_help=False)
    who = someone.add_argument_group("the person; what is left out is filled in by formula or default")
    who.add_argument("--vo2max", type=float, help="mL/kg/min, measured")
    who.add_argument("--cooper", type=float, metavar="M", help="metres run in 12 minutes")
    who.add_argument("--shuttle", type=float, metavar="KM_H", help="speed of the last stage of the 20 m shuttle run")
    who.add_argument("--strike-test", type=int, nargs=8, metavar="N",
                     help="strikes in 10 s, in 30 s, and in each of the six 30 s of 3:00")  # fmt: skip
    who.add_argument("--hr-max", type=float, help="bpm")
    who.add_argument("--hr-rest", type=float, help="bpm")
    who.add_argument("--mass", type=float, default=70.0, help="kg")
    who.add_argument("--age", type=float, default=30.0, help="years")
    who.add_argument("--sex", choices=get_args(Sex), default="male")
    who.add_argument("--level", choices=get_args(Level), default="club")
    who.add_argument("--rules", choices=sorted(RULE_SETS), help="the rule set competed under")
    who.add_argument("--beta-blocker", action="store_true", help="medication that lowers heart rate")

    evaluate = commands.add_parser("evaluate", parents=[as_json, someone], help="simulate and judge a line")
    evaluate.add_argument("text")
    evaluate.add_argument("--target", choices=sorted(TARGETS), help="judge for this purpose, not the best one")
    evaluate.add_argument("--days-to-fight", type=int)
    evaluate.add_argument("--wbgt", type=float, help="wet-bulb globe temperature in the hall, °C")
    evaluate.set_defaults(run=evaluate_command)

    claimed = commands.add_parser("claim", parents=[as_json, someone], help="hold a claim against the numbers")
    claimed.add_argument("text")
    claimed.add_argument("--kcal", type=float, help="it spends at least so many kcal")
    claimed.add_argument("--tabata", action="store_true", help="it is the research protocol")
    claimed.add_argument("--trains", choices=sorted(TARGETS), help="it trains this purpose")
    claimed.set_defaults(run=claim_command)

    combined = commands.add_parser("combination", parents=[as_json], help="read a combination and count it")
    combined.add_argument("text", help=f"such as '{notation.EXAMPLE}'")
    combined.add_argument("--school", choices=sorted(SCHOOLS), default=DEFAULT_SCHOOL, help="of numbers beyond six")
    combined.add_argument("--stance", choices=get_args(Stance), default="orthodox")
    combined.add_argument("--tempo", choices=sorted(t.id for t in TEMPOS.values() if t.pace), default="combination")
    combined.add_argument("--seconds", type=int, default=60, help="of the interval it is to fill")
    combined.set_defaults(run=combination_command)

    about = commands.add_parser("method", parents=[as_json], help="how the numbers come about, as Markdown")
    about.add_argument("--settings", action="store_true", help="every number of our own, and every bound")
    about.add_argument("--examples", action="store_true", help="sessions worked whole")
    about.set_defaults(run=method_command)

    both = commands.add_parser("shared", parents=[as_json], help="what the front end is held to, as JSON")
    both.add_argument("--vectors", action="store_true", help="the cases that its tests hold to")
    both.set_defaults(run=shared_command)

    shape = commands.add_parser("schema", parents=[as_json], help="the JSON Schema of the session document")
    shape.set_defaults(run=schema_command)

    profile = commands.add_parser("simulate", parents=[as_json], help="run a demand profile through the stores")
    profile.add_argument("profile", help=f"CSV with the columns seconds,demand_frac; {ALL_THAT_CAN_BE_DELIVERED_FRAC:g}"
                                         " or more asks for all that can be delivered")  # fmt: skip
    profile.add_argument("--vo2max", type=float, default=REFERENCE_VO2MAX_ML_KG_MIN, help="mL/kg/min")
    profile.add_argument("--hold", action="store_true", help="go on at what can be delivered after a shortfall")
    profile.set_defaults(run=simulate_command)

    learn = commands.add_parser("calibrate", parents=[as_json], help="what somebody's logs teach of them")
    learn.add_argument("person", metavar="PERSON.json", help='such as {"age_years": 28, "mass_kg": 61}')
    learn.add_argument("logs", metavar="LOGS.json", help='such as [{"text": "8 x (20 all-out, 10 rest)", "rpe": 9}]')
    learn.set_defaults(run=calibrate_command)

    weeks = commands.add_parser("camp", parents=[as_json], help="solve the weeks to a bout")
    weeks.add_argument("camp", metavar="CAMP.json", help='such as {"start": "2027-01-04", "bout_on": "2027-03-20", '
                       '"rule_set": "muay-thai-amateur", "days": ["mon", "thu", "sat"], "most_a_week": 3}')  # fmt: skip
    weeks.set_defaults(run=camp_command)

    places = commands.add_parser("rotation", parents=[as_json], help="solve who is where in a class, wave by wave")
    places.add_argument("group", metavar="CLASS.json", help='such as {"people": 14, "waves": 7, "bags": 6, '
                        '"pad_pairs": 2, "floor": 4, "limits": [{"person": 3, "not": "pads"}]}')  # fmt: skip
    places.set_defaults(run=rotation_command)
    return parser


def main(arguments: Arguments[str] | None = None) -> int:
    """Run a command; 0 if it worked, 2 with the fault and its cure on standard error if not."""
    options = _parser().parse_args(arguments)
    try:
        result = options.run(options)
    except LineError as error:
        if options.json:
            print(json.dumps({"error": error.as_dict()}, indent=2, ensure_ascii=False))
        pointer = f"  {options.text}\n  {' ' * error.position}^\n" if "\n" not in options.text else ""
        print(f"{pointer}Character {error.position + 1}: {error.message} For example: {error.example}", file=sys.stderr)
        return 2
    except (
        CommandError,
        CampError,
        ClassError,
        PersonError,
        TestResultError,
        ProfileError,
        NoWorkError,
        SessionError,
        claim.ClaimError,
    ) as error:
        if options.json:
            print(json.dumps({"error": {"message": str(error)}}, indent=2, ensure_ascii=False))
        print(f"{error}", file=sys.stderr)
        return 2
    if set(result) == {"markdown"}:
        print(result["markdown"], end="")
        return 0
    print(json.dumps(result, indent=2, ensure_ascii=False) if options.json else "\n".join(_plain(result)))
    return 0
