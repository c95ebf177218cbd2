"""The reasons of a call as they are gathered, for and against, and the decision that they end in."""

import math

from bootmark.core import judgement
from bootmark.core.catalogue.model import Agent, Catalogue
from bootmark.core.meanings import DecisionKind
from bootmark.core.messages import Fact, Message, Says, says
from bootmark.core.types import Choice, Decision, Finding, StageNow

ASKS = (Says.CONTROL_ASK, Says.CONTROL_DANGER)
"""Refusals that a look can lift: their sign is what it answers."""


class Reasons:
    """Gathers reasons while the rules are gone through in order."""

    def __init__(self, agent: Agent, finding: Finding) -> None:
        self.agent, self.finding = agent, finding
        self.speaks_for: list[Message] = []
        self.against: list[Message] = []
        self.change: list[Message] = []
        self.choices: tuple[Choice, ...] = ()
        self.cautions: tuple[Message, ...] = (says(Says.DANGER, agent=agent.id),) if agent.hurts else ()
        if finding.danger:
            self.cautions += (says(Says.DANGER_PERHAPS if finding.danger_sign else Says.DANGER, agent=finding.danger),)

    def of(self, kind: Says, **facts: Fact) -> Message:
        """A message about this case's agent."""
        return says(kind, agent=self.agent.id, **facts)

    def asks(self) -> str:
        """The sign that a control waits for, where none is on offer for want of it."""
        waiting = (choice.reason.sign for choice in self.choices if choice.reason.kind in ASKS)
        return "" if any(choice.offered for choice in self.choices) else next(waiting, "")

    def look_first(self, catalogue: Catalogue) -> Decision:
        look = catalogue.signs[self.asks()].look
        return self.decide(DecisionKind.LOOK_AGAIN, says(Says.CALL_ASK, look=look), 1, says(Says.FOR_LOOK, look=look))

    def grows(self, stage: StageNow) -> None:
        """Says that growth alone passes the threshold soon, at the upper limit of the count, where it does."""
        if stage.days_to_threshold is not None and stage.days_to_threshold <= judgement.LEAVE_LOOK_DAYS:
            self.against.append(says(Says.PASSES_SOON, days=math.ceil(stage.days_to_threshold)))

    def hold(self) -> Decision:
        return self.decide(DecisionKind.LEAVE, self.of(Says.CALL_HELD), 1, says(Says.FOR_ANSWER))

    def decide(self, kind: DecisionKind, headline: Message, days: int | None, look_for: Message) -> Decision:
        return Decision(
            kind, headline, tuple(self.speaks_for), tuple(self.against), tuple(self.change), self.choices, self.cautions, days, look_for
        )
