"""What a call must wait for before a hand, a spade or a sprayer comes near: proofs, second signs, what else may be there."""

import unittest
from dataclasses import replace

from bootmark.core.catalogue import default
from bootmark.core.field import call, called, identify
from bootmark.core.meanings import AgentKind, ControlKind, VerdictKind
from bootmark.core.messages import Says, says
from bootmark.core.types import Case, Choice, CropState, Decision, Finding, Policy, Sample, StageNow

CATALOGUE = default()


def on(finding: Finding, crop: str, region: str = "DE") -> Decision:
    return call.decide(finding, StageNow(), None, None, None, CropState(crop, region=region), Policy())


def proved(agent: str, *seen: str) -> Finding:
    return Finding(agent, VerdictKind.NAMED, 0.97, True, seen=frozenset(seen))


class ByHand(unittest.TestCase):
    """Nothing is done by hand beside what stings or burns."""

    def setUp(self) -> None:
        self.hurting = next(agent for agent in CATALOGUE.agents.values() if agent.hurts and agent.shows)
        self.pest = next(
            agent
            for agent in CATALOGUE.agents.values()
            if agent.kind == AgentKind.DISEASE and any(control.by_hand and not control.needs for control in agent.controls)
        )
        signs = [sign for sign, shows in self.pest.shows.items() if shows.often in ("always", "usual") or shows.confirms]
        self.bare = replace(proved(self.pest.id, *signs), absent=frozenset(CATALOGUE.signs) - set(signs))

    def refused(self, finding: Finding) -> set[str]:
        decision = on(finding, next(iter(self.pest.hosts), "").replace("*", "") or "rose")
        return {choice.control for choice in decision.choices if choice.reason.kind == Says.CONTROL_DANGER}

    def test_a_hand_waits_while_something_that_hurts_may_be_there(self) -> None:
        by_hand = {control.id for control in self.pest.controls if control.by_hand}
        self.assertEqual(self.refused(self.bare), set())
        self.assertTrue(self.refused(replace(self.bare, danger=self.hurting.id)) & by_hand)
        self.assertLessEqual(self.refused(replace(self.bare, danger=self.hurting.id)), by_hand)

    def test_the_call_tells_what_hurts_before_anything_else(self) -> None:
        decision = on(replace(self.bare, danger=self.hurting.id), "rose")
        self.assertEqual(decision.cautions[0].kind, Says.DANGER)


class SecondWord(unittest.TestCase):
    """One answer may be wrong: plants are pulled on two signs that no other named cause leaves."""

    def test_a_sign_that_another_named_cause_leaves_too_is_no_second_word(self) -> None:
        checked = 0
        for agent in CATALOGUE.agents.values():
            final = [control for control in agent.controls if control.final]
            own = [sign for sign, shows in agent.shows.items() if shows.confirms or shows.often in ("always", "usual")]
            if not final or len(own) < 2 or agent.notifiable or agent.kind not in (AgentKind.DISEASE, AgentKind.DISORDER):
                continue
            finding = proved(agent.id, *own[:2])
            shared = replace(finding, shared=frozenset(own[1:2]))
            kinds = [
                {choice.control: choice.reason.kind for choice in on(case, next(iter(agent.hosts))).choices} for case in (finding, shared)
            ]
            checked += sum(kinds[0].get(control.id) not in (None, Says.CONTROL_FINAL) for control in final)
            for control in final:
                if kinds[0].get(control.id) == Says.CONTROL_TIMING:
                    self.assertEqual(kinds[1][control.id], Says.CONTROL_FINAL, (agent.id, control.id))
        self.assertGreater(checked, 5)

    def test_what_a_sign_says_of_two_causes_is_shared(self) -> None:
        sign, leaving = next(
            (sign, agents)
            for sign in CATALOGUE.signs
            if len(agents := [agent for agent in CATALOGUE.agents.values() if not agent.of and sign in agent.shows]) >= 2
        )
        lone = called.with_signs(proved(leaving[0].id), {sign: "seen"}, [leaving[0].id], {}, CATALOGUE)
        with_other = called.with_signs(proved(leaving[0].id), {sign: "seen"}, [agent.id for agent in leaving[:2]], {}, CATALOGUE)
        self.assertEqual((lone.shared, with_other.shared), (frozenset(), frozenset({sign})))


class Plants(unittest.TestCase):
    """What a plant suffers from is said, and has its months. Silver leaf, oak wilt, bleeding: common practice, no source."""

    def on_plant(self, crop: str, month: int, hemisphere: str = "north") -> dict[str, Says]:
        finding = proved("any-canker", "cankers", "gum")
        state = CropState(crop, month=month, hemisphere=hemisphere)
        decision = call.decide(finding, StageNow(), None, None, None, state, Policy())
        return {choice.control: choice.reason.kind for choice in decision.choices}

    def test_stone_fruit_is_not_cut_in_winter_nor_oak_in_spring(self) -> None:
        for crop, month, hemisphere, closed in (
            ("plum", 12, "north", True), ("plum", 7, "north", False), ("plum", 7, "south", True), ("plum", 12, "south", False),
            ("oak", 5, "north", True), ("oak", 1, "north", False), ("pear", 12, "north", False),
        ):  # fmt: skip
            reason = self.on_plant(crop, month, hemisphere)["prune-out"]
            self.assertEqual(reason == Says.CONTROL_CLOSED, closed, (crop, month, hemisphere))

    def test_a_material_that_marks_the_plant_says_so(self) -> None:
        finding = proved("any-soft-scale", "brown-domes", "sticky-shine")
        for crop, marked in (("maple", True), ("citrus", False)):
            decision = call.decide(finding, StageNow(), Sample("leaf", (9,) * 20, ()), None, None, CropState(crop, month=6), Policy())
            offered = {choice.control for choice in decision.choices if choice.offered}
            said = [
                caution.sign or str(caution.facts.get("control")) for caution in decision.cautions if caution.kind == Says.CONTROL_MARKS
            ]
            self.assertEqual(bool(said), marked and "summer-oil" in offered, crop)

    def test_the_first_act_is_an_adviser_s_where_the_farm_has_no_order_of_its_own(self) -> None:
        finding = proved("any-chafer", "c-shaped-grubs", "turf-lifts-like-a-carpet")
        own = [choice.control for choice in on(finding, "lawn").choices]
        self.assertEqual(own, [control.id for control in CATALOGUE.agents["any-chafer"].controls])
        ordered = Policy((ControlKind.CULTURAL, ControlKind.LIVING, ControlKind.PHYSICAL))
        decision = call.decide(finding, StageNow(), None, None, None, CropState("lawn"), ordered)
        self.assertEqual(decision.choices[0].control, "water-well")
        # A farm that chose the usual order of kinds has chosen it.
        chosen = call.decide(finding, StageNow(), None, None, None, CropState("lawn"), Policy(tuple(ControlKind)))
        self.assertEqual(chosen.choices[0].control, "water-well")


class Apart(unittest.TestCase):
    """A released enemy is kept apart from what kills it. Side effects of materials: from memory."""

    def kept(self, first: tuple[str, str], second: tuple[str, str]) -> bool:
        decided = []
        for agent, control in (first, second):
            choice = Choice(control, True, says(Says.CONTROL_TIMING, agent=agent, control=control))
            decided.append((proved(agent), replace(on(proved(agent), "rose"), choices=(choice,))))
        return bool(called.conflicts(decided, CATALOGUE))

    def test_what_kills_a_released_enemy_is_kept_apart_from_it(self) -> None:
        wasps = ("greenhouse-whitefly", "release-encarsia")
        self.assertTrue(self.kept(wasps, ("rose-slug", "spinosad")))
        self.assertTrue(self.kept(("broad-mite", "release-neoseiulus"), ("any-aphid", "soap")))
        self.assertFalse(self.kept(wasps, ("fungus-gnat", "nematodes-feltiae")))
        self.assertFalse(self.kept(("fungus-gnat", "nematodes-feltiae"), ("any-aphid", "soap")))

    def test_every_release_says_what_it_brings(self) -> None:
        for agent in CATALOGUE.agents.values():
            for control in agent.controls:
                self.assertEqual(control.brings is not None, control.id.startswith(("release-", "trichogramma")), (agent.id, control.id))


class Held(unittest.TestCase):
    def test_nothing_is_done_in_a_block_that_is_held(self) -> None:
        mite = proved("two-spotted-spider-mite", "mites-and-round-eggs")
        sample = Sample("leaf", (40, 41) * 10, ())
        for finding, counted in ((mite, sample), (proved("any-canker", "cankers", "gum"), None)):
            for on_hold in (False, True):
                state = CropState("raspberry", month=6, on_hold=on_hold)
                decision = call.decide(finding, StageNow(), counted, None, None, state, Policy())
                self.assertEqual(any(choice.offered for choice in decision.choices), not on_hold)
                self.assertEqual(decision.headline.kind == Says.CALL_HELD, on_hold)


class Listed(unittest.TestCase):
    def test_a_kind_with_a_listed_member_that_may_live_there_stays_where_it_is(self) -> None:
        for kind in (agent for agent in CATALOGUE.agents.values() if CATALOGUE.members(agent.id)):
            listed = [member for member in CATALOGUE.members(kind.id) if member.listed_in("DE") and member.hosts.keys() - {"*"}]
            for member in listed:
                crop = next(iter(member.hosts.keys() - {"*"}))
                cautions = [caution.kind for caution in on(proved(kind.id), crop).cautions]
                self.assertIn(Says.KEPT_UNMOVED, cautions, (kind.id, member.id))

    def test_a_kind_without_one_may_be_moved(self) -> None:
        kind = next(
            agent
            for agent in CATALOGUE.agents.values()
            if CATALOGUE.members(agent.id) and not any(m.notifiable for m in CATALOGUE.members(agent.id))
        )
        self.assertNotIn(Says.KEPT_UNMOVED, [caution.kind for caution in on(proved(kind.id), "rose").cautions])


class Awaited(unittest.TestCase):
    """Once a cause is named, the look that its call still waits for is the next one."""

    def test_what_a_control_must_not_be_without_is_looked_at_next(self) -> None:
        awaited = 0
        for agent in CATALOGUE.agents.values():
            needs = {sign for control in agent.controls for sign in (*control.needs, *control.needs_absent)}
            proof = next((sign for sign, shows in agent.shows.items() if shows.confirms), "")
            crop = next(iter(sorted(agent.hosts.keys() - {"*"})), "rose")
            if not needs or not proof or proof in needs or crop not in CATALOGUE.crops:
                continue
            case = Case(crop, signs={proof: "seen"})
            _ranking, looks, verdict = identify.answer(case, catalogue=CATALOGUE)
            if verdict.kind != VerdictKind.NAMED or agent.id not in verdict.agents:
                continue
            asked = {sign for look in looks if look.awaited for sign in look.signs}
            refusing = {sign for control in agent.controls for sign in (*control.not_with, *control.needs_absent)}
            if proof not in refusing:
                awaited += bool(asked & needs)
                self.assertTrue(asked & needs, agent.id)
        self.assertGreater(awaited, 3)


class Kinds(unittest.TestCase):
    def test_no_spray_stands_on_offer_for_a_kind_that_nothing_proves(self) -> None:
        for kind in (agent for agent in CATALOGUE.agents.values() if CATALOGUE.members(agent.id)):
            decision = on(replace(proved(kind.id), confirmed=False), "rose")
            sprays = {ControlKind.SOFT, ControlKind.CONVENTIONAL}
            offered = {kind.control(choice.control).kind for choice in decision.choices if choice.offered}
            self.assertFalse(sprays & offered, kind.id)
