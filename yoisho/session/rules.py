"""Rule sets: rounds and rests of the sports. One entry here is all a new one needs.

Public rules, from memory; they change, and differ by federation and country: check your federation's.
"""

from dataclasses import dataclass

CHECK = "public rules, from memory: check your federation's"


@dataclass(frozen=True)
class RuleSet:
    id: str
    name: str
    rounds: int
    round_s: int
    rest_s: int

    @property
    def text(self) -> str:
        minutes, seconds = divmod(self.round_s, 60)
        pause, left = divmod(self.rest_s, 60)
        return f"{self.rounds} × {minutes}:{seconds:02d}, rest {pause}:{left:02d}"


RULE_SETS: dict[str, RuleSet] = {
    rules.id: rules
    for rules in (
        RuleSet("boxing-amateur", "amateur boxing, elite", 3, 180, 60),
        RuleSet("boxing-junior", "amateur boxing, juniors", 3, 120, 60),
        RuleSet("boxing-pro-6", "professional boxing, 6 rounds", 6, 180, 60),
        RuleSet("boxing-pro-12", "professional boxing, title", 12, 180, 60),
        RuleSet("boxing-pro-women", "professional boxing, women", 8, 120, 60),
        RuleSet("kickboxing-full-rules", "kickboxing with knees", 3, 180, 60),
        RuleSet("kickboxing-amateur", "amateur kickboxing", 3, 120, 60),
        RuleSet("muay-thai-pro", "professional Muay Thai", 5, 180, 120),
        RuleSet("muay-thai-amateur", "amateur Muay Thai", 3, 180, 60),
        RuleSet("mma-pro", "professional mixed martial arts", 3, 300, 60),
        RuleSet("mma-title", "mixed martial arts, title", 5, 300, 60),
        RuleSet("mma-amateur", "amateur mixed martial arts", 3, 180, 60),
        RuleSet("taekwondo", "taekwondo", 3, 120, 60),
        RuleSet("sanda", "sanda", 3, 120, 60),
    )
}
