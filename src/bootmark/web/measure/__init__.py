"""Pictures that tell a unit of a count: specks on white paper, what sits on a sticky card."""
