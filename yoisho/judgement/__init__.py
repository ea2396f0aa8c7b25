"""What a session trains, judged: targets, the verdict with its reasons, and cautions."""
