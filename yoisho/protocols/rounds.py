"""Protocols in rounds: the shape of a bout, and what coaches fill it with."""

from yoisho.protocols.protocol import Protocol, Version, scaled

_NOT_BEFORE_WARM = "Kicks and full power only after five easy minutes."
_HOLDER = "The holder's shoulders tire too: change roles every second round."

ROUNDS = (
    Protocol(
        "fight-rounds", "Fight rounds",
        "Rounds and rests as the rule set has them, at the pace of the bout.",
        "Near a bout the body should know how long a round lasts and how much comes back in the corner. Farther away, "
        "technique need not be tied to rounds at all.",
        "fight-rehearsal",
        scaled(
            ("Rounds: 3 x (2:00 technique bag) rest 1:00", "Shorter rounds, no pace to keep."),
            ("Rounds: 3 x (3:00 combination bag) rest 1:00", ""),
            ("Rounds: 3 x (0:45 speed, 1:15 technique, 1:00 power) bag rest 1:00",
             "Each round opens fast, settles, and is finished with power."),
            ("Rounds: 3 x (2:00 flow shadow) rest 1:00", "Nothing is hit: the clock alone is rehearsed."),
        ),
        (
            Version("short rounds", "Rounds: 3 x (2:00 combination bag) rest 1:00",
                    "For rule sets with rounds of two minutes."),
            Version("five-minute rounds", "Rounds: 3 x (5:00 combination bag) rest 1:00",
                    "For mixed rules: a lower pace, kept longer."),
            Version("five rounds, long rests", "Rounds: 5 x (3:00 combination bag) rest 2:00",
                    "For rule sets with five rounds and two minutes in the corner."),
            Version("two long rounds", "Rounds: 2 x (5:00 combination bag) rest 1:00",
                    "For shorter mixed bouts."),
            Version("open technique", "Open work (skill): 15:00 technique bag", "No rounds: stop, look at it, go on."),
        ),
        ("Hard rehearsal ends a week before the bout at the latest.", _NOT_BEFORE_WARM),
        ("bout", "boxing", "sparring", "pace", "rule set", "mma"),
    ),
    Protocol(
        "escalating-rounds", "Escalating rounds",
        "Every round adds techniques to those before; the last rounds are sprints, and a recap recalls all.",
        "A long sequence is learned a piece at a time, under a load that rises with it; recalling it tired is the "
        "test.",
        "lactic-capacity",
        scaled(
            ("Build (skill): 3 x (2:00 technique pads [adding 1-2 | 3-2]) rest 1:00", "Two additions, no sprints."),
            ("Build: 4 x (3:00 combination pads [adding 5-2-4 | 1-3-2 | 2b-3 | slip, 2-3]) rest 1:00; then 1:00\n"
             "Sprint rounds: 2 x (6 x (15 all out / 15 recover)) pads rest 1:00; then 1:00\n"
             "Recap: 3:00 freestyle pads [5-2-4 then 1-3-2 then 2b-3 then slip, 2-3]", ""),
            ("Build: 5 x (3:00 combination pads [adding 5-2-4 | 1-3-2 | 2b-3 | slip, 2-3 | 2, rk-l]) rest 1:00; then "
             "1:00\n"
             "Sprint rounds: 2 x (6 x (12 all out / 18 recover)) pads rest 1:00; then 1:00\n"
             "Recap: 3:00 freestyle pads [5-2-4 then 1-3-2 then 2b-3 then slip, 2-3 then 2, rk-l]",
             "One addition more, with a kick."),
            ("Build (aerobic base): 4 x (2:00 flow shadow [adding 1-2 | 3-2 | slip, 2]) rest 1:00",
             "The same learning in the air."),
        ),
        (),
        (_HOLDER, "When the recap falls apart, the sprints were too many."),
        ("adding", "add-on", "sequence", "recap", "sprint"),
    ),
    Protocol(
        "thirties", "30-30-30",
        "Three thirds of thirty seconds, done twice: one round of three minutes.",
        "Technique, speed and power are opposed when asked for at once, so each gets its own third. In the learning "
        "order form comes first, while it is fresh; in the fight order the round opens fast and is finished hard.",
        "aerobic-power",
        scaled(
            ("Thirds (skill): 3 x (2 x (30 technique, 30 flow, 30 technique)) bag rest 1:00",
             "Flow in the place of speed, no power yet."),
            ("Thirds: 3 x (2 x (30 technique, 30 speed, 30 power)) bag rest 1:00", "Learning order."),
            ("Thirds: 5 x (2 x (30 technique, 30 speed, 30 power)) bag rest 1:00", "Two rounds more."),
            ("Thirds (skill): 3 x (2 x (30 technique, 30 flow, 30 combination)) shadow rest 1:00",
             "In the air: no shock for wrists and shoulders."),
        ),
        (
            Version("fight order", "Thirds: 3 x (2 x (30 speed, 30 technique, 30 power)) bag rest 1:00",
                    "A bout opens fast, slows, and is finished with power."),
            Version("with a breath", "Thirds: 3 x (2 x (30 technique, 30 speed, 30 power) rest 0:15) bag rest 1:00",
                    "Fifteen seconds between the two passes: a round of 3:15."),
            Version("kicking", "Thirds: 3 x (2 x (30 technique [1-2, rear round kick], 30 combination [10x clinch "
                    "knee], "
                    "30 power [rk-m, lk-m])) bag rest 1:00",
                    "Clinch knees and alternate round kicks in the place of speed and power."),
        ),
        ("Do not ask for the most of both speed and power in one third.", _NOT_BEFORE_WARM),
        ("technique", "speed", "power", "thirty", "30-30-30", "thirds"),
    ),
    Protocol(
        "thirties-in-pairs", "30-30-30 in pairs",
        "One bag, two people: one works thirty seconds, then the other, in turn.",
        "Twice the people on the same bags, and thirty on, thirty off for each: the clock doubles, the work does not.",
        "lactic-capacity",
        scaled(
            ("Pairs (skill): 2 x (30 technique, 30 flow, 30 technique) bag in pairs", "No speed, no power."),
            ("Pairs: 6 x (30 technique, 30 speed, 30 all out) bag in pairs", "Eighteen minutes for two."),
            ("Pairs: 2 x (4 x (30 technique, 30 speed, 30 all out)) bag in pairs rest 2:00", "Twice twelve minutes."),
            ("Pairs (skill): 2 x (30 technique, 30 flow, 30 combination) shadow in pairs", "Each watches the other."),
        ),
        (Version("fight order", "Pairs: 6 x (30 speed, 30 technique, 30 all out) bag in pairs", ""),
         Version("six minutes", "Pairs (skill): 2 x (30 technique, 30 combination, 30 power) bag in pairs",
                 "Six minutes for two: to begin a class with."),),
        ("The one who waits stands clear of the swinging bag.",),
        ("partner", "two people", "share", "class", "pairs", "alternate"),
    ),
    Protocol(
        "threshold-rounds", "Threshold rounds",
        "A minute of speed at a very high volume, a minute of power, a minute of carrying a heavy ball.",
        "The aim is high but tolerated: 80 to 90 % of maximum heart rate with technique intact. Squeezing the load "
        "keeps "
        "the lactate in the muscle, so the same minutes count for more.",
        "threshold",
        scaled(
            ("Threshold (aerobic base): 2 x (1:00 combination bag, 1:00 technique bag, 1:00 squats) rest 2:00",
             "Squats in the place of the carry, longer rest."),
            ("Threshold: 3 x (1:00 speed bag, 1:00 power bag, 1:00 carry) rest 1:30", "First week."),
            ("Threshold: 4 x (1:00 speed bag, 1:00 power bag, 1:00 carry) rest 1:00",
             "A round more, a minute of rest."),
            ("Threshold: 3 x (2:00 combination shadow, 1:00 marching knees) rest 1:30", "No blows, no load to hold."),
        ),
        (
            Version("second week", "Threshold: 3 x (1:00 speed bag, 1:00 power bag, 1:00 carry) rest 1:15",
                    "Fifteen seconds less rest."),
            Version("third week", "Threshold: 3 x (1:00 speed bag, 1:00 power bag, 1:00 carry) rest 1:00",
                    "And fifteen less again."),
            Version("unload", "Threshold: 2 x (1:00 speed bag, 1:00 power bag, 1:00 carry) rest 1:30",
                    "The week after the third."),
            Version("unload in one round", "Threshold: 2:00 speed bag, 2:00 power bag, 1:00 carry",
                    "One round of five minutes."),
            Version("five-minute rounds", "Threshold: 2 x (2:00 speed bag, 2:00 power bag, 1:00 carry) rest 1:30",
                    "For mixed rules."),
        ),
        ("When technique goes, the pace was too high: it is threshold only as long as it is tolerated.",
         "Breathe while carrying; do not hold the breath against the load."),
        ("carry", "ball", "bear hug", "heart rate", "tolerated", "progression"),
    ),
    Protocol(
        "bursts", "Bursts",
        "Easy one-twos with a sprint of ten seconds, again and again: nine sprints in a round.",
        "A bout ebbs and flows; the sprint store comes back in the easy tens, and is asked for again.",
        "fight-rehearsal",
        scaled(
            ("Bursts (threshold): 2 x (6 x (20 flow [1-2] / 10 speed [1-2])) bag rest 1:00",
             "Longer easy stretches, speed not all out."),
            ("Bursts (bout rehearsal): 3 x (9 x (10 flow [1-2], 10 all out [1-2])) bag rest 1:00", ""),
            ("Bursts (bout rehearsal): 5 x (9 x (10 flow [1-2], 10 all out [1-2-3-2])) bag rest 1:00",
             "Five rounds, four punches."),
            ("Bursts (bout rehearsal): 3 x (6 x (20 flow [1-2], 10 combination [1-2])) shadow rest 1:00",
             "In the air."),
        ),
        (),
        ("Breathe out with every blow of the sprint.",),
        ("sprint", "ebb and flow", "intervals in a round", "ten seconds"),
    ),
    Protocol(
        "two-on-two-off", "2-on / 2-off",
        "Two minutes on the bag, a minute in each stance, then two minutes of cardio or core off it.",
        "A clean way to run two halves of a class on half the bags: the halves change places every two minutes.",
        "aerobic-power",
        scaled(
            ("Blocks (aerobic base): 3 x (2:00 technique bag switch at half, 1:00 marching knees, 1:00 core)",
             "Three blocks."),
            ("Blocks: 5 x (2:00 combination bag switch at half, 1:00 skip, 1:00 core)", ""),
            ("Blocks (lactic capacity): 6 x (2:00 power bag switch at half, 4 x (0:30 burpees))",
             "Power, and burpees in four short bouts."),
            ("Blocks (aerobic base): 4 x (2:00 flow bag switch at half, 2:00 marching knees)",
             "No jumping, no floor work."),
        ),
        (Version("four short stations",
                 "Blocks: 5 x (2:00 combination bag switch at half, 0:30 squats, 0:30 plank, 0:30 lunges, 0:30 "
                 "sit-ups)",
                 "Four half minutes off the bag."),),
        ("In the other stance the hips come first: half power until it is clean.",),
        ("class", "halves", "stance", "cardio", "core", "block"),
    ),
)  # fmt: skip
