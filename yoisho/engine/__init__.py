"""The person, the three stores, heart rate and lactate: what a timeline of demand does to somebody."""
