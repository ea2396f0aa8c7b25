"""The weeks to a bout: what is asked of them, the rules they keep, and the plan that is solved from both."""
