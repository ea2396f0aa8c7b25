"""A class: people who train together, what there is to train at, and what each of them gets of it."""
