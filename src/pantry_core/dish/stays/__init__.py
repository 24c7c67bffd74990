"""From steps, plan and facts to the history of the piece."""
