"""What a session is: the tree, the timeline it unrolls to, and the shorthand coaches write it in."""
