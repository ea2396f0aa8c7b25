"""Protocols for an energy system: short work, short rest, and a purpose that the stores can be asked about."""

from yoisho.protocols.protocol import Protocol, Version, scaled

INTERVALS = (
    Protocol(
        "tabata", "Tabata",
        "Eight times twenty seconds of all-out work with ten of rest: four minutes. The research protocol asks for "
        "about 170 % of VO2max and leaves nobody a ninth; the same clock at less effort is only the 20/10 format.",
        "Twenty seconds drain more than ten give back, so both the aerobic and the lactic side are driven to their end "
        "within four minutes. Choose one simple combination, or kicks in turn, four left, four right.",
        "lactic-capacity",
        scaled(
            ("Twenty-tens, the format (aerobic base): 8 x (20 technique bag [1-2] / 10 rest)",
             "The format, not the research protocol."),
            ("Twenty-tens: 8 x (20 all out bag [1-2] / 10 rest)", "As researched: only with every blow flat out."),
            ("Twenty-tens: 2 x (8 x (20 all out bag [1-2] / 10 rest)) rest 5:00",
             "Twice, with time to come back; the second is rarely as good."),
            ("Twenty-tens, the format (aerobic base): 8 x (20 flow shadow / 10 rest)", "The format in the air."),
        ),
        (
            Version("kicks", "Twenty-tens: 8 x (20 all out bag [4x lk-m, 4x rk-m] / 10 rest)",
                    "Four left, four right."),
            Version("20/10 format",
                    "Twenty-tens, the format (skill): 8 x (20 combination bag [1-2-3b] / 10 rest)",
                    "At lower effort, and said so."),
        ),
        ("Only for people cleared for vigorous work, and after a warm-up.",
         "Two days between sessions as hard as this."),
        ("20/10", "twenty-tens", "hiit", "all out", "vo2max"),
        source="Tabata et al. 1996, MSSE 28:1327-1330, from memory",
    ),
    Protocol(
        "lactic-capacity", "Lactic capacity",
        "Thirty hard, thirty light at about half effort, for eight minutes; rest two; again.",
        "The lactic store is emptied step by step and kept low, with active recovery on the bag. In the two minutes: "
        "sit, in by the nose, out by the mouth, from the diaphragm.",
        "lactic-capacity",
        scaled(
            ("Hard and light (sprint capacity): 6 x (20 power bag, 40 flow bag)", "Shorter hard bouts, one block."),
            ("Hard and light: 2 x (8 x (30 power bag / 30 flow bag)) rest 2:00",
             "Sixteen hard bouts, as hard as thirty seconds can be held."),
            ("Hard and light: 2 x (10 x (30 power bag / 30 flow bag)) rest 2:00",
             "Twenty hard bouts."),
            ("Hard and light (aerobic base): 2 x (6 x (30 combination shadow / 30 recover shadow)) rest 2:00",
             "In the air."),
        ),
        (Version("one block", "Hard and light (threshold): 8 x (30 power bag / 30 flow bag)",
                 "To begin with, or to unload: one block alone does not go deep."),),
        ("48 h between lactic sessions; the last 9 to 10 days before a bout.", "Not for beginners, not under sixteen."),
        ("30/30", "thirty thirty", "lactate", "hard"),
    ),
    Protocol(
        "forty-twenty", "40/20",
        "Ten rounds of forty seconds, a different combination in each, twenty of active rest.",
        "Learning under breath: enough time for clean repetitions, and the rest is spent on the feet. It can be cut by "
        "taking time from the reset, not from the work.",
        "threshold",
        scaled(
            ("Forty-twenties (skill): 8 x (40 technique bag [1 | 1-2 | 1-3-2 | 2-3] / 20 recover footwork)",
             "Four combinations, each twice."),
            ("Forty-twenties: 10 x (40 combination bag [1-2 | 1-3-2 | 1-2-3 | 2-3-2 | 1b-2 | 2b-3 | 1-2b-3 | slip, "
             "2-3 | "
             "4-3-2 | 1-2-3b-2] / 20 recover footwork)", ""),
            ("Forty-twenties: 10 x (45 combination bag [1-2-3 | 1-3-2-3b | 2-3-2-3b | 1-2, rk-l | slip, 2-3-2 | "
             "1b-2b-3 | "
             "2b-3-2, lk-m | roll, 3-2 | 1-2-5b-2 | 1-2-3-2, rk-m] / 15 recover footwork)",
             "Five seconds from the rest to the work, longer combinations, kicks."),
            ("Forty-twenties (aerobic base): 10 x (40 flow shadow [1-2 | 1-3-2 | 2-3-2 | slip, 2 | roll, 3] / 20 "
             "recover footwork)", "In the air."),
        ),
        (Version("drawn by lot", "Forty-twenties: 10 x (40 combination bag [draw 1-2 | 1-3-2 | 2-3-2 | 2b-3 | slip, "
                 "2-3 | recall] "
                 "/ 20 recover footwork)", "Nobody knows what comes; the last recalls all."),),
        ("Active rest is footwork and shadow, not leaning on the bag.",),
        ("combination", "different", "active rest", "ten rounds"),
    ),
    Protocol(
        "minimal-rest-circuit", "Minimal-rest circuit",
        "Five stations of a minute, three rounds, hardly any rest.",
        "Time is short and everything is to be trained: the heart stays up because the muscles change, not because the "
        "pace is high. Show each station slowly once before it.",
        "aerobic-power",
        scaled(
            ("Circuit (aerobic base): 2 x (1:00 technique bag, 1:00 squats, 1:00 flow bag, 1:00 core, 1:00 marching "
             "knees) rest 2:00",
             "Two rounds with a rest between."),
            ("Circuit (threshold): 3 x (1:00 power bag, 1:00 squats, 1:00 speed bag, 1:00 plank, 1:00 burpees)",
             "Fifteen minutes."),
            ("Circuit: 4 x (1:00 power bag, 1:00 burpees, 1:00 speed bag, 1:00 plank, 1:00 push-ups)", "Four rounds."),
            ("Circuit (aerobic base): 3 x (1:00 flow bag, 1:00 marching knees, 1:00 technique shadow, 1:00 core, "
             "1:00 footwork)",
             "Nothing that jumps or bears on the wrists."),
        ),
        (),
        ("With no rest built in, anybody may step out for one.",),
        ("circuit", "stations", "fitness", "class"),
    ),
    Protocol(
        "cue-in-a-hold", "Cue inside a hold",
        "A plank of a minute; on the call, every fifteen seconds, a hand goes to the other shoulder.",
        "Holding still is easy to cheat and dull; the call keeps the ears open and the trunk working through a change.",
        "aerobic-base",
        scaled(
            ('Hold: 3 x (0:30 plank call "knee down and up" every 0:15) rest 0:30', "Half a minute, knees."),
            ('Hold: 3 x (1:00 plank call "shoulder tap" every 0:15) rest 0:30', ""),
            ('Hold: 4 x (1:30 plank call "shoulder tap" every 0:15) rest 0:30', "Half a minute longer."),
            ('Hold: 4 x (0:30 core call "change the leg" every 0:15) rest 0:30',
             "On the back: no weight on the wrists."),
        ),
        (Version("on the bag", 'Bag: 3 x (2:00 flow bag call "three hard" every 0:15) rest 1:00',
                 "The same idea on the bag."),),
        ("Breathe through the hold; stop when the back sags.",),
        ("plank", "shoulder tap", "call", "core"),
    ),
    Protocol(
        "circuit-finish", "Circuit finish",
        "Lunges, push-ups, mountain climbers, V-ups and squats by number, then a round of skipping.",
        "The session ends with work everybody can count; the number is scaled to the level, not the exercise.",
        "aerobic-base",
        scaled(
            ("Finish: 4 x (8 push-ups) rest 0:20, 14 lunges, 14 squats, 2:00 skip", "Four eights."),
            ("Finish: 3 x (16 push-ups) rest 0:30, 30 lunges, 40 mountain climbers, 18 V-ups, 30 squats, 3:00 skip",
             ""),
            ("Finish: 2 x (3 x (16 push-ups) rest 0:20, 36 lunges, 60 mountain climbers, 24 V-ups, 36 squats) rest "
             "1:00, 3:00 skip", "Twice through."),
            ("Finish: 18 squats, 18 lunges, 3:00 marching knees", "Without push-ups, V-ups and jumps."),
        ),
        (),
        ("Numbers stop where form stops.",),
        ("calisthenics", "push-ups", "lunges", "end"),
    ),
)  # fmt: skip
