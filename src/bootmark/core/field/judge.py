"""What may be said of a case now: the verdict, from the chances of agents and of kinds, and the proofs that were seen."""

import math
from collections.abc import Sequence

from bootmark.core import judgement
from bootmark.core.catalogue.model import Agent, Catalogue
from bootmark.core.field import proofs
from bootmark.core.field.activity import activity, activity_look
from bootmark.core.field.looks import GLANCE
from bootmark.core.meanings import Activity, AgentKind, VerdictKind
from bootmark.core.messages import Message, Says, says
from bootmark.core.types import SEEN, Case, NextLook, Ranking, Suspect, Verdict

NOT_ANIMALS = (AgentKind.DISEASE, AgentKind.DISORDER, AgentKind.NORMAL)


def judge(case: Case, catalogue: Catalogue, ranking: Ranking, looks: list[NextLook]) -> Verdict:
    return _Judge(case, catalogue, ranking, looks).verdict()


class _Judge:
    """A case on which a verdict is given: what must be reported first, then what is named, then what is no pest."""

    def __init__(self, case: Case, catalogue: Catalogue, ranking: Ranking, looks: list[NextLook]) -> None:
        self.case, self.catalogue, self.ranking, self.looks = case, catalogue, ranking, looks

    def verdict(self) -> Verdict:
        if not any(state == SEEN for state in self.case.signs.values()):
            return self._judged(VerdictKind.NEEDS_A_LOOK, [], says(Says.TELL_SIGNS))
        listed = self._listed()
        if listed:
            report = says(Says.REPORT_IT, agent=listed[0].agent, listing=self._of(listed[0]).listing_in(self.case.region))
            return self._judged(VerdictKind.MUST_BE_REPORTED, listed[:1], report)
        proved = self._proved()
        helpers = [suspect for suspect in proved if self._of(suspect).kind == AgentKind.BENEFICIAL]
        named = [suspect for suspect in proved if self._of(suspect).is_pest]
        if named:
            parasitised = [suspect for suspect in named if self._activity(suspect.agent) == Activity.PARASITISED]
            if helpers and len(parasitised) == len(named) and not self._listed_near(named):
                return self._judged(VerdictKind.HELP_HAS_COME, [helpers[0], *named], _leave(named[0]), _leave(helpers[0]))
            besides = [suspect for suspect in proved if self._of(suspect).kind == AgentKind.DISEASE]
            return self._judged(VerdictKind.NAMED, [*named, *besides], *self._onward(named), *self._perhaps_too(named))
        if self._listed_near():
            return self._unsettled()
        ill = self._settled_without_pests(proved)
        pests = self._mass({suspect.agent for suspect in self.ranking.kinds if self._of(suspect).is_pest})
        if helpers and not ill and pests <= judgement.PESTS_LEFT:
            return self._judged(VerdictKind.HELP_HAS_COME, helpers[:1], _leave(helpers[0]))
        if ill and pests <= judgement.PESTS_LEFT:
            agent = self._of(ill[0])
            kind = VerdictKind.NORMAL if agent.kind == AgentKind.NORMAL else VerdictKind.NOT_A_PEST
            return self._judged(kind, ill, *_instead(agent), *self._kept(ill[0]))
        return self._unsettled()

    def _of(self, suspect: Suspect) -> Agent:
        return self.catalogue.agent(suspect.agent)

    def _activity(self, agent: str) -> Activity:
        return activity(agent, self.case, catalogue=self.catalogue)

    def _listed(self) -> list[Suspect]:
        """Proved and likely enough to be reported here."""
        return [
            suspect
            for suspect in self.ranking.suspects
            if suspect.confirmed and suspect.probability >= judgement.REPORTED_AT and self._of(suspect).listed_in(self.case.region)
        ]

    def _listed_near(self, but: Sequence[Suspect] = ()) -> bool:
        """Whether a proof was seen of a pest that is listed anywhere: nothing is cleared beside it, whatever its chance.

        but: those that are named with what is cleared.
        """
        named = {self.catalogue.key_of(suspect.agent) for suspect in but}
        agents = [self._of(suspect) for suspect in self.ranking.suspects if suspect.confirmed]
        return any(agent.is_pest and agent.notifiable and self.catalogue.key_of(agent.id) not in named for agent in agents)

    def _proved(self) -> list[Suspect]:
        """Agents, and kinds where no one agent of them stands out, that a confirming sign, chance and margin prove."""
        proved = []
        likely = [suspect for suspect in self.ranking.suspects if suspect.confirmed and suspect.probability >= judgement.NAMED_AT]
        outstanding = [suspect for suspect in likely if self._stands_out(suspect)]
        for kind in self.ranking.kinds:
            species = [suspect for suspect in outstanding if self.catalogue.key_of(suspect.agent) == kind.agent]
            if species:
                proved += species
            elif kind.confirmed and kind.probability >= judgement.NAMED_AT:
                proved.append(kind)
        return sorted(proved, key=lambda suspect: -suspect.probability)

    def _stands_out(self, suspect: Suspect) -> bool:
        """Whether one that is proved and likely is far enough ahead of each rival that leaves its proof as well."""
        shown = self._of(suspect).shows
        seen = [sign for sign, shows in shown.items() if shows.confirms and self.case.signs.get(sign) == SEEN]
        rivals = [
            other.probability
            for other in self.ranking.suspects
            if other.agent != suspect.agent and all(sign in self._of(other).shows for sign in seen)
        ]
        return all(suspect.probability >= judgement.NAMED_MARGIN * rival for rival in rivals)

    def _settled_without_pests(self, proved: list[Suspect]) -> list[Suspect]:
        """Diseases, disorders and what is normal that settle a case."""
        ill = [suspect for suspect in proved if self._of(suspect).kind in NOT_ANIMALS]
        if ill:
            return ill
        enough = judgement.UNPROVED_AT if self.looks else judgement.SETTLED_AT
        return [suspect for suspect in self.ranking.kinds if suspect.probability >= enough and _may_go_unproved(self._of(suspect))][:1]

    def _mass(self, kinds: set[str]) -> float:
        """Chance that any agent of these kinds is at work, from the explanations of what was seen."""
        key_of = self.catalogue.key_of
        return math.fsum(cause.probability for cause in self.ranking.explanations if any(key_of(agent) in kinds for agent in cause.agents))

    def _unsettled(self) -> Verdict:
        top = list(self.ranking.kinds[:1])
        leader = self._of(top[0]) if top else None
        provable = any(look.proves for look in self.looks)
        if leader and leader.sample and top[0].probability >= judgement.SAMPLED_AT and not provable:
            return self._judged(VerdictKind.SEND_A_SAMPLE, top, says(Says.SAMPLE, agent=leader.id))
        nothing = next((cause.probability for cause in self.ranking.explanations if not cause.agents), 0.0)
        live = any(self.catalogue.signs[sign].live for sign in self.ranking.unexplained)
        # The plant was looked over before anything was told: what the glance would still tell keeps no case open.
        telling = any(look.bits >= judgement.STILL_TELLS for look in self.looks if look.look != GLANCE)
        hopeless = nothing >= judgement.NOTHING_AT and not provable and not telling
        if hopeless or (nothing >= judgement.UNKNOWN_AT and (live or not self.looks)):
            return self._judged(VerdictKind.NO_CAUSE_KNOWN, [], says(Says.SEND_SAMPLE))
        if self.looks:
            return self._judged(VerdictKind.NEEDS_A_LOOK, top, says(Says.TAKE_LOOK, look=self.looks[0].look))
        return self._judged(VerdictKind.CANNOT_TELL, top, says(Says.SEND_SAMPLE))

    def _onward(self, named: list[Suspect]) -> list[Message]:
        """What follows from a name: to count it; to keep it where it, or one of its kind that may live here, may have to be reported."""
        agent = self._of(named[0])
        plan = agent.sampling
        advice = [says(Says.COUNT_NEXT, agent=agent.id, unit=plan.unit if plan else "")]
        if agent.notifiable and not self.case.region:
            advice.append(says(Says.REPORT_IF_LISTED, agent=agent.id, listings=agent.notifiable))
        for suspect in named:
            advice += self._kept(suspect)
        return advice

    def _perhaps_too(self, named: list[Suspect]) -> list[Message]:
        """A second cause that is likelier at work than not, and the look that would prove it: one of two is never named alone."""
        kinds = {self.catalogue.key_of(suspect.agent) for suspect in named}
        beside = []
        for kind in self.ranking.kinds:
            if kind.agent in kinds or kind.confirmed or kind.probability < judgement.BESIDE_AT:
                continue
            for sign in proofs.open_proofs(self.catalogue.kin(kind.agent), self.case.signs)[:1]:
                beside.append(says(Says.PERHAPS_TOO, agent=kind.agent, look=self.catalogue.signs[sign].look))
        return beside

    def _kept(self, suspect: Suspect) -> list[Message]:
        """A kind is never cleared while one of its members that must be reported may live on that plant there."""
        agent = self._of(suspect)
        listed = tuple(member.id for member in proofs.listed_kin(agent, self.case.crop, self.case.region, self.catalogue))
        if listed:
            return [says(Says.KIND_HAS_LISTED, agent=agent.id, members=listed)]
        return [says(Says.SPECIES_MATTERS, agent=agent.id)] if agent.species and agent.species.matters else []

    def _dangers(self, named: tuple[str, ...]) -> tuple[Message, ...]:
        """What can hurt people or stock, told as soon as a sign of it fits."""
        return tuple(
            says(Says.DANGER if suspect.agent in named else Says.DANGER_PERHAPS, agent=suspect.agent)
            for suspect in proofs.dangers(self.ranking.suspects, self.case.signs, self.catalogue)
        )

    def _would_change(self, agents: tuple[str, ...], state: Activity) -> tuple[Message, ...]:
        change = []
        for look in self.looks[:2]:
            other = next((agent for agent in look.splits if agent not in agents), None)
            change.append(says(Says.LOOK_POINTS, look=look.look, agent=other) if other else says(Says.LOOK_SETTLES, look=look.look))
        if agents and state == Activity.NOT_KNOWN and self.catalogue.agent(agents[0]).is_pest:
            telling = activity_look(agents[0], self.case, catalogue=self.catalogue)
            if telling:
                change.append(says(Says.LOOK_TELLS_ACTIVITY, look=telling))
        return tuple(dict.fromkeys(change))

    def _judged(self, kind: VerdictKind, chosen: Sequence[Suspect], *advice: Message) -> Verdict:
        agents = tuple(suspect.agent for suspect in chosen)
        told_of = agents[-1:] if kind == VerdictKind.HELP_HAS_COME else agents[:1]
        state = self._activity(told_of[0]) if told_of else Activity.NOT_KNOWN
        return Verdict(
            kind=kind,
            agents=agents,
            probability=chosen[0].probability if chosen else 0.0,
            activity=state,
            speaks_for=tuple(reason for suspect in chosen for reason in suspect.reasons_for),
            speaks_against=tuple(reason for suspect in chosen for reason in suspect.reasons_against),
            would_change=self._would_change(agents, state),
            advice=advice,
            dangers=self._dangers(agents),
        )


def _may_go_unproved(agent: Agent) -> bool:
    """A disorder that no sign can prove is settled by its chance; one that a sign could prove waits for it."""
    return agent.kind == AgentKind.DISORDER and not proofs.provable([agent])


def _leave(suspect: Suspect) -> Message:
    return says(Says.LEAVE_WHEN, agent=suspect.agent)


def _instead(agent: Agent) -> list[Message]:
    acts = [control for control in agent.controls if control.unsprayed] or list(agent.controls)
    return [says(Says.DO_INSTEAD, agent=agent.id, control=control.id) for control in acts[:1]]
