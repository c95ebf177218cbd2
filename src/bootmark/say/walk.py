"""Why a block is walked to today, or can wait."""

from bootmark.core.messages import Says
from bootmark.say.text import By, Many, Text


def _due(text: str) -> By:
    """A sentence with the words for how long something has been due."""
    waits = {"0": "due today", "1": "due since yesterday"}
    return By("late", {late: text.replace("{due}", words) for late, words in waits.items()}, text.replace("{due}", "due for {late} days"))


TEXTS: dict[Says, Text] = {
    Says.SEE_WHETHER_IT_WORKED: _due("See whether it worked on {agent:in_sentence}, {due}: {look_for}"),
    Says.LOOK_DUE: _due("Look again on {agent:in_sentence}, {due}: {look_for}"),
    Says.TELL_WHAT_IT_IS: "Tell what it is: {look:name|lower}. So far it may be {agent:in_sentence}.",
    Says.READ_TRAP: _due("Read {trap} for {agent:in_sentence}, {due}."),
    Says.PASSES_HERE: Many(
        "days",
        "{agent:in_sentence|first}: by the last count it may pass the threshold within {days} day.",
        "{agent:in_sentence|first}: by the last count it may pass the threshold within {days} days.",
    ),
    Says.FOUND_BEFORE: "In these weeks of earlier years there was something here: {agent:in_sentence}.",
    Says.FOUND_BESIDE: "Proved beside it, in {block}, since the last look here: {agent:in_sentence}.",
    Says.LOT_ARRIVED: "Look through what arrived before it stands with the others: {lot}.",
    Says.CHANGE_LURE: _due("Give {trap} a new lure, {due}."),
    Says.WINDOW_OPEN: "{agent:in_sentence|first}: the stage that can be reached is out until {last:day}. Look while there is time.",
    Says.WINDOW_COMES: By(
        "days",
        {"1": "{agent:in_sentence|first}: the stage that can be reached comes tomorrow."},
        "{agent:in_sentence|first}: the stage that can be reached comes in {days} days.",
    ),
    Says.NEVER_LOOKED: "Nobody has looked here yet this season.",
    Says.LONG_UNSEEN: "Not looked at for {days} days.",
    Says.LONG_UNSEEN_HOT: "Not looked at for {days} days, hot and dry for {hot} days.",
    Says.LONG_UNSEEN_RAIN: "Not looked at for {days} days, {rain} days of rain in between.",
    Says.AFTER_CLEAN: "Clean blocks come first. From here on pests were found lately: clean hands, boots and tools from block to block.",
    Says.ASKED_FOR: "You want to look here.",
    Says.NO_TIME: "No time for it today.",
    Says.LEFT_OUT: "Left out today.",
    Says.LOOKED_AT: By("days", {"0": "Looked at today.", "1": "Looked at yesterday."}, "Looked at {days} days ago."),
    Says.LOOK_COMES: "Next look on {on:day}.",
    Says.BLOCK_CLOSED: By(
        "days",
        {
            "today": By(
                "by",
                {"label": "Closed until {until:time} by the label ({control:in_sentence}, done at {ended:time})."},
                "Closed until {until:time} ({control:in_sentence}, done at {ended:time}), as recalled: the label decides.",
            ),
            "later": By(
                "by",
                {"label": "Closed until {until:day}, {until:time} by the label ({control:in_sentence}, done on {ended:day})."},
                "Closed until {until:day}, {until:time} ({control:in_sentence}, done on {ended:day}), as recalled: the label decides.",
            ),
        },
    ),
    Says.CLOSED_TILL_DRY: By(
        "days",
        {
            "today": "Closed until it is dry, {until:time} at the earliest ({control:in_sentence}, done at {ended:time}): touch a leaf "
            "from the edge before you go in.",
            "later": "Closed until it is dry, {until:day}, {until:time} at the earliest ({control:in_sentence}, done on {ended:day}): "
            "touch a leaf from the edge before you go in.",
        },
    ),
    Says.CLOSED_BUT_EARLY: Many(
        "minutes",
        "{closed} Before that {minutes} minute a day at most, in this: {wear}. The label allows no more.",
        "{closed} Before that {minutes} minutes a day at most, in this: {wear}. The label allows no more.",
    ),
    Says.BEING_DONE: "Closed: {control:in_sentence} is being done here since {began:time}.",
    Says.NO_HAND_WORK: "No thinning, tying or picking by hand before {until:day}, {until:time} ({control:in_sentence}, by its label).",
    Says.CLOSED_UNKNOWN: "Closed: {control:in_sentence} was done here on {ended:day}, {ended:time}, and when anybody may go in again is "
    "not known here. Read its label first.",
    Says.BLOCK_HELD: "This block is held after a report: {agent:in_sentence} was reported on {since:day}. Nothing is done in it and "
    "nothing leaves it before the plant health authority frees it; clean boots and tools after it.",
}
