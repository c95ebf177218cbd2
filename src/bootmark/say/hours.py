"""An hour in words: every reason why it is no better, or that nothing speaks against it. For `core/season/windows.Cell`."""

from collections.abc import Sequence

from bootmark.core.messages import Message
from bootmark.say.season import NOTHING_AGAINST
from bootmark.say.tongue import Tongue


def reason(tongue: Tongue, reasons: Sequence[Message]) -> str:
    return "; ".join(tongue.all(reasons)) or tongue.line(NOTHING_AGAINST)
