"""What the stand itself says to a call: ripe and about to be lost, leaves eaten, too high to be reached, easily had again."""

from bootmark.core import judgement
from bootmark.core.field.reasons import Reasons
from bootmark.core.meanings import OVER, DecisionKind, Worth
from bootmark.core.messages import Fact, Message, Says, says
from bootmark.core.types import CropState, Decision

TOO_HIGH = (Says.CONTROL_TOO_HIGH, Says.CONTROL_TOO_HIGH_BY_HAND)


def ripe(case: Reasons, crop: CropState) -> Decision | None:
    """What is nearly ripe and about to be lost is harvested before anything else is done: a control comes too late for it."""
    if crop.on_hold or crop.days_to_harvest is None or crop.days_to_harvest > judgement.HARVEST_NEAR_DAYS:
        return None
    for share, least, reason, headline in (
        (crop.weak_stalks, judgement.WEAK_STALKS, Says.STALKS_WEAK, Says.CALL_HARVEST_WEAK),
        (crop.holed_fruit, judgement.HOLED_FRUIT, Says.FRUIT_HOLED, Says.CALL_HARVEST_HOLED),
    ):
        # Before a storm the estimate will do: those that would be spared by waiting for surety lie on the ground then.
        if share and (share.estimate if crop.storm else share.low) >= least:
            case.speaks_for.append(says(reason, share=share.estimate, low=share.low, high=share.high, units=share.units))
            case.speaks_for += [says(Says.STORM_AHEAD, on=crop.storm)] if crop.storm else []
            case.change.append(says(Says.LESS_PRESSING))
            return case.decide(DecisionKind.HARVEST_FIRST, case.of(headline), max(1, crop.days_to_harvest), says(Says.FOR_LEFT))
    return None


def leaves_lost(case: Reasons, crop: CropState) -> bool:
    """Whether more leaf is lost than the crop bears at its stage, whatever was counted; where the stage is not told, than it ever bears."""
    lost, limits = crop.leaf_loss, judgement.LEAF_LOSS.get(crop.crop)
    if lost is None or limits is None or case.finding.activity in OVER:
        return False
    limit = limits[0] if crop.flowered is False else min(limits) if crop.flowered is None else limits[1]
    facts: dict[str, Fact] = {"share": lost.estimate, "low": lost.low, "high": lost.high, "limit": limit}
    if lost.low >= limit:
        case.speaks_for.append(says(Says.LEAVES_LOST, **facts))
        return True
    case.against.append(says(Says.LEAVES_SPARED, **facts))
    return False


def given_up(case: Reasons, crop: CropState) -> Decision | None:
    """For plants that are easily had again, giving them up is the better advice where only a licensed hand could save them."""
    if crop.worth != Worth.REPLACED:
        return None
    case.speaks_for.append(says(Says.PLANTS_CHEAP))
    return case.decide(DecisionKind.SALVAGE, case.of(Says.CALL_GIVE_UP), judgement.LEAVE_LOOK_DAYS, says(Says.FOR_NEW_PLANTS))


def cautions(crop: CropState) -> tuple[Message, ...]:
    """Cautions of the place: what is high is not climbed to, and a line is kept away from."""
    high = crop.height is not None and crop.height >= judgement.TALL_METRES
    line = (says(Says.LINE_OVERHEAD, metres=judgement.LINE_NEAR_METRES),) if crop.lines_near else ()
    return (*line, *[says(Says.NO_LADDER)] * high)


def out_of_reach(case: Reasons, crop: CropState) -> Decision | None:
    """What no sprayer and no hand here reaches is a firm's; where nobody told how high it is, or what reaches it, that is asked."""
    refused = (choice.reason for choice in case.choices if choice.reason.kind in TOO_HIGH)
    # What is too high for a hand may still be within a sprayer's reach: then it is something else that refuses.
    high = next((reason for reason in refused if (crop.height or 0.0) > (crop.reach or 0.0)), None)
    asks = any(choice.reason.kind in (Says.CONTROL_ASK_HEIGHT, Says.CONTROL_ASK_REACH) for choice in case.choices)
    if high and not asks:
        case.change.append(says(Says.FIRM_ASKS))
        headline = case.of(Says.CALL_FIRM, height=high.facts["height"])
        return case.decide(DecisionKind.REFER, headline, judgement.ADVISER_DAYS, says(Says.FOR_ADVISER))
    if asks:
        return case.decide(DecisionKind.LOOK_AGAIN, case.of(Says.CALL_ASK_HEIGHT), 1, says(Says.FOR_HEIGHT))
    return None
