"""What the page's scripts say by themselves, as where there is no signal. They fill the fields: js/lib/say.js."""

from typing import Any

from bootmark.say.text import Many
from bootmark.say.tongue import Tongue

TEXTS: dict[str, str | Many] = {
    # The outbox.
    "sign_in_to_send": "Kept on this device: sign in again to send it",
    "set_aside": "Bootmark failed at this record again and again: it is set aside, and the others go on.",
    "refused": "The server refused it.",
    "no_signal": "No signal: try again where there is some.",
    "not_kept": "Not kept: this browser keeps nothing. Write it down, and use a window that is not private.",
    "waits": Many("count", "{count} record waits to be sent", "{count} records wait to be sent"),
    "waits_since": Many("count", "{count} record waits to be sent, since {since}", "{count} records wait to be sent, since {since}"),
    "leaves_behind": Many(
        "count",
        "{count} record waits here and would stay until you sign in again. Press once more to sign out all the same.",
        "{count} records wait here and would stay until you sign in again. Press once more to sign out all the same.",
    ),
    "photograph": "A photograph.",
    "pictures_wait": Many(
        "count",
        "{count} picture waits for signal: it is measured once it is sent.",
        "{count} pictures wait for signal: they are measured once they are sent.",
    ),
    "no_camera": "This device gives no camera to the page: choose Picture.",
    "photograph_kept": "Kept on this device. It is sent as soon as there is signal.",
    "not_signed": "{job}, done and not signed.",
    "not_signed_kept": "Done, not signed: kept on this device with its details. It is signed when there is signal.",
    # The bench and the tally.
    "seen": "seen",
    "absent": "not there",
    "unsure": "unsure",
    "told_seen": "{signs}.",
    "told_absent": "Not there: {signs}.",
    "told_unsure": "Unsure: {signs}.",
    "told_nothing": "Nothing yet.",
    "not_kept_short": "Not kept on this device.",
    "stored": "Kept",
    "kept": "Kept on this device",
    "to_send": "It is sent as soon as there is a signal.",
    "sound": "This stop is sound. Go on with the round.",
    "answer_ready": "The answer is ready to send.",
    "onward_round": "Back to the round",
    "onward_count": "Count them",
    "onward_call": "Make the call",
    "onward_answer": "Read the answer",
    "usual": "Most usual here at this time",
    "suspects": "What it may be",
    "show_more": Many("count", "Show {count} more seldom seen here", "Show {count} more seldom seen here"),
    "counted": "Counted",
    "count_stored": "Next in the line: does it matter, do I act.",
    "count_done": "It stands in the Book.",
    "not_counted": "Not counted yet.",
    "no_count": "no count yet",
    # Ribbons.
    "no_more_came": "The next ones did not come: try again",
    "day_not_told": "Nothing is told of this day.",
    "before_biofix": "Before the biofix.",
    "after_reckoned": "After what is reckoned.",
    "nobody_about": "nobody about",
    "day_told": "{about}. {middle} {unit}, this day {source}.",
    "day_told_between": "{about}. {middle} ({low} to {high}) {unit}, this day {source}.",
    "day_m": "measured",
    "day_f": "forecast",
    "day_p": "drawn from past years",
    "day_i": "filled in",
    "warmer_more": "{degrees} warmer",
    "warmer_less": "{degrees} cooler",
    "warmer_same": "as foretold",
    "later_more": Many("count", "{count} day later", "{count} days later"),
    "later_less": Many("count", "{count} day earlier", "{count} days earlier"),
    "later_same": "as set",
    # People, and where a farm lies.
    "copied": "Copied.",
    "copy_by_hand": "This browser gives no clipboard here: it is marked, copy it by hand.",
    "place_asked": "Asking this device…",
    "place_tapped": "Tapped on the plan.",
    "place_taken": "Taken from this device, good to {metres} m.",
    "place_within": "You stand within {metres} m of the dot.",
    "place_pointed": "Good to about {kilometres} km on this map: weather and sun need no more.",
    "place_pointed_wide": "Good to about {kilometres} km: press there again to come nearer.",
    "place_refused": "This device does not tell where it is: type the degrees.",
    # The board to draw on.
    "board_encloses": "{count} corners, {size}.",
    "board_more": "{count} corners: it takes three at least.",
    "board_crosses": "It crosses itself where the ring is: move a corner, or undo.",
    "board_line": "{count} points.",
    "board_spot": "It stands there.",
    "board_spots": "{count} spots.",
    "board_no_place": "This device does not tell where it is: draw it instead.",
    "board_unsure": "This device knows its place to {metres} m only, and {most} m are the most: wait for a clear sky and press again.",
    "session_ended": "Your session has ended: load the page again and sign in.",
    "whatif_silent": "No answer: the connection is gone. Move it again.",
}


def texts(tongue: Tongue) -> dict[str, Any]:
    """The texts in a language, those that count by the names of its plural forms."""
    return {name: _forms(tongue, text) for name, text in TEXTS.items()}


def _forms(tongue: Tongue, text: str | Many) -> Any:
    if isinstance(text, Many):
        return {
            "one": tongue.translations.ngettext(text.singular, text.plural, 1),
            "other": tongue.translations.ngettext(text.singular, text.plural, 2),
        }
    return tongue.template(text)
