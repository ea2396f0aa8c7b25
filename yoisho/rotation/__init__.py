"""Who is where in a class, wave by wave: people, bags, pads and floor spots, turns shared out evenly."""
