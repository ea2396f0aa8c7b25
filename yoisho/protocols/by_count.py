"""Protocols counted in strikes, steps or beats, and those that keep left and right even."""

from yoisho.protocols.protocol import Protocol, Version, scaled

_KNUCKLES = "Wraps and gloves: a count is easily reached with hands that no longer close."

BY_COUNT = (
    Protocol(
        "rep-rounds", "Rep rounds",
        "A number of strikes instead of a clock: sixty of each of five punches, all five in a row, four sprints of a "
        "hundred and twenty. 855 in all.",
        "No clock presses, everybody pauses when they need to, and the volume is the same each time, so that "
        "progress is "
        "seen in the time it takes. Afterwards the roles change with the holder.",
        "skill",
        scaled(
            ("Count: 3 x (45 reps technique bag [2 | 1b | 4]) rest 0:30", "Three punches, forty-five each."),
            ("Count: 5 x (60 reps technique bag [2 | 1b | 4 | 3 | 5b]) rest 0:30; then 0:30, "
             "15 reps technique bag [2-1b-4-3-5b]; then 0:30, 4 x (120 strikes speed bag [2-3]) rest 0:30", ""),
            ("Count (threshold): 5 x (80 reps combination bag [2 | 1b | 4 | 3 | 5b]) rest 0:20; then "
             "0:20, "
             "25 reps combination bag [2-1b-4-3-5b]; then 0:20, 6 x (150 strikes speed bag [2-3]) rest 0:20",
             "Six sprints, shorter rests."),
            ("Count (aerobic base): 5 x (35 reps flow shadow [2 | 1b | 4 | 3 | 5b]) rest 0:30",
             "In the air, thirty-five each."),
        ),
        (),
        (_KNUCKLES, "Pause when needed: it is a count, not a race."),
        ("count", "strikes", "number", "volume", "beginners"),
    ),
    Protocol(
        "ladders", "Ladders",
        "Nine, seven, five, three hooks to the body, and as many to the head.",
        "The count falls as the arms tire, so the last step can be as clean as the first; or one item climbs while all "
        "others stay, and the climb is felt.",
        "threshold",
        scaled(
            ("Ladder (aerobic base): 3 x (5-3-1 reps technique bag [3], 5-3-1 reps technique bag [3b]) rest 0:30",
             "Five, three, one."),
            ("Ladder: 8 x (9-7-5-3 reps power bag [4b], 9-7-5-3 reps power bag [4], 9-7-5-3 reps power bag [3b], "
             "9-7-5-3 reps power bag [3]) rest 0:15", "Body then head, right then left; twice down."),
            ("Ladder: 2 x (5 x (11-9-7-5-3 reps power bag [4b], 11-9-7-5-3 reps power bag [4], "
             "11-9-7-5-3 reps power bag [3b], 11-9-7-5-3 reps power bag [3]) rest 0:20) rest 2:00",
             "From eleven, twice."),
            ("Ladder (aerobic base): 3 x (8 x (9-7-5-3 reps flow shadow [4-3], 9-7-5-3 reps flow shadow [4b-3b]) rest "
             "0:10) rest 0:30", "In the air, six times down."),
        ),
        (
            Version("one item climbs",
                    "Climb: 2 x (5 x (30-45-60-75-90 reps mountain climbers, 12 lunges, 15 push-ups, 4 burpees) rest "
                    "0:30) rest 1:00",
                    "The others stay: 300 mountain climbers, twice."),
        ),
        (_KNUCKLES,),
        ("hooks", "steps", "calisthenics", "mountain climbers", "descending"),
    ),
    Protocol(
        "pyramids", "Pyramids",
        "One; one, two; one, two, three: a sequence that grows by one, or the same with a fixed finish.",
        "Cardio and learning in one: the beginning of the sequence is repeated most, and its order is burned in. "
        "n techniques make n(n+1)/2.",
        "aerobic-power",
        scaled(
            ("Pyramid (skill): 3 x (2:00 technique bag [pyramid 1-2-3]) rest 1:00", "Three techniques."),
            ("Pyramid: 3 x (3:00 combination bag [pyramid 1-2-3b-2-3]) rest 1:00", "Five techniques, fifteen strikes."),
            ("Pyramid: 4 x (3:00 combination bag [pyramid 1-2-3b-2-3, rk-m]) rest 1:00", "Six, the last a kick."),
            ("Pyramid (aerobic base): 3 x (3:00 flow shadow [pyramid 1-2-3-2]) rest 1:00", "In the air."),
        ),
        (Version("fixed finish", "Pyramid: 3 x (3:00 combination bag [pyramid 1-2-3b | 2-3]) rest 1:00",
                 "Every step ends with the same two."),),
        ("When the order is lost, start again from one: that is part of it.",),
        ("sequence", "grow", "add one", "memory"),
    ),
    Protocol(
        "contrast-sets", "Contrast sets",
        "Three with power, then five with speed; reset, and again.",
        "After the heavy blows the fast ones feel light. Relax between and shake the arms out: tension slows both.",
        "sprint-capacity",
        scaled(
            ("Contrast (aerobic base): 2 x (6 x (3 reps technique bag [2], 5 reps flow bag [1], 0:15 recover)) rest "
             "1:00",
             "Technique and flow in their place."),
            ("Contrast (threshold): 3 x (8 x (3 reps power bag [2], 5 reps speed bag [1], 0:15 recover)) rest 1:00",
             ""),
            ("Contrast (lactic capacity): 4 x (10 x (3 reps power bag [4-3b], 5 reps speed bag [2-1], 0:10 recover)) "
             "rest 1:00",
             "In twos, and more of them."),
            ("Contrast (aerobic base): 3 x (6 x (3 reps combination shadow [2], 5 reps flow shadow [1], 0:20 "
             "recover)) rest 1:00", "In the air."),
        ),
        (Version("by the clock", "Contrast (lactic capacity): 3 x (6 x (10 power bag / 10 speed bag / 10 recover)) "
                 "rest 1:00",
                 "By tens."),),
        ("Full power only when warm.",),
        ("power", "speed", "relax", "shake out"),
    ),
    Protocol(
        "side-switch", "Side switch",
        "The same work in each stance: half and half, every few seconds, or on the coach's call.",
        "Left and right stay even, and the weak side gets its minutes without being asked.",
        "aerobic-power",
        scaled(
            ("Sides (skill): 3 x (2:00 technique bag [1-2] switch at half) rest 1:00", "One change, one combination."),
            ("Sides: 3 x (3:00 combination bag [1-2-3b] switch at half) rest 1:00", ""),
            ("Sides: 4 x (3:00 combination bag [1-2-3b, rear round kick] switch every 0:15) rest 1:00",
             "Every fifteen seconds, with a kick."),
            ("Sides (aerobic base): 3 x (2:00 flow shadow switch at half) rest 1:00", "In the air."),
        ),
        (
            Version("every half minute", "Sides: 3 x (3:00 combination bag [1-2] switch every 0:30) rest 1:00", ""),
            Version("on the call", "Sides: 3 x (3:00 combination bag [1-2] switch on call) rest 1:00",
                    "Nobody knows when."),
        ),
        ("In the other stance half power until it is clean.",),
        ("stance", "southpaw", "left", "right", "balance"),
    ),
    Protocol(
        "beat-led", "Beat-led work",
        "Strikes on the beat of music: single, double and half time, sides mirrored.",
        "The beat sets the volume and hides it: people strike more evenly, and longer, than a clock would get from "
        "them.",
        "aerobic-power",
        scaled(
            ("On the beat (aerobic base): 3 x (2:00 flow bag [1-2] to 100 beats half time switch at half) rest 1:00",
             "Every other beat."),
            ("On the beat: 3 x (1:00 flow bag [1-2] to 120 beats, 1:00 flow bag [1-2-3-2] to 120 beats, "
             "1:00 speed bag [1-2] to 120 beats double time) rest 1:00", ""),
            ("On the beat (lactic capacity): 5 x (1:00 flow bag [1-2] to 130 beats, 1:00 combination bag [1-2-3b-2] "
             "to 130 beats, 1:00 speed bag [1-2] to 130 beats double time) rest 1:00", "Faster, five rounds."),
            ("On the beat (aerobic base): 3 x (3:00 flow shadow [1-2] to 100 beats half time switch at half) rest "
             "1:00", "In the air."),
        ),
        (),
        ("Double time is for seconds, not for songs: watch the wrists.",),
        ("music", "bpm", "rhythm", "fitness", "class"),
    ),
    Protocol(
        "warm-up", "Warm-up",
        "Skip or run, or shadow and joint work; then a first round on the bag, relaxed and without gloves.",
        "Without gloves nobody hits hard, which is the point. Kicks and power wait until it is warm.",
        "aerobic-base",
        scaled(
            ("Warm-up: 3:00 joint work, 5:00 skip, 2:00 flow shadow\nFirst round: 2:00 flow bag [1-2]", "Shorter."),
            ("Warm-up: 10:00 skip, 3:00 flow shadow; then 1:00\nFirst round: 3:00 flow bag", ""),
            ("Warm-up: 15:00 run, 3:00 flow shadow; then 1:00\nFirst round: 3:00 flow bag",
             "Fifteen minutes of running."),
            ("Warm-up: 6:00 joint work, 12:00 flow shadow\nFirst round: 3:00 flow bag", "No skipping, no running."),
        ),
        (),
        ("High kicks cold are a known way to get hurt.",),
        ("prepare", "skip", "joints", "begin"),
        frame=False,
    ),
    Protocol(
        "cool-down", "Cool-down",
        "Easy shadow, breathing, stretching.",
        "Moving on lightly clears lactate faster than lying down, and the session ends quietly.",
        "aerobic-base",
        scaled(
            ("Cool-down: 3:00 recover shadow, 2:00 stretching, 1:00 breathing", "Shorter."),
            ("Cool-down: 4:00 recover shadow, 3:00 stretching, 2:00 breathing", ""),
            ("Cool-down: 6:00 recover shadow, 5:00 stretching, 2:00 breathing", "Longer after a hard day."),
            ("Cool-down: 3:00 recover footwork, 3:00 joint work, 2:00 breathing", "Joints moved, not stretched."),
        ),
        (),
        ("Dizzy, or pain in the chest: stop, sit, and see a physician.",),
        ("end", "stretch", "breathe"),
        frame=False,
    ),
)  # fmt: skip
