"""What a screen shows, worked out whole in plain values: whoever sends it adds nothing but names and rights."""
