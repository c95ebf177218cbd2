"""What a question answered before in this transaction; forgotten as soon as something is written."""

from collections.abc import Callable
from typing import Any, TypeVar, cast

from sqlalchemy.orm import Session

Kept = TypeVar("Kept")


def once(session: Session, key: tuple[Any, ...], ask: Callable[[], Kept]) -> Kept:
    """The answer to a question, asked once in a transaction."""
    memo = session.info.setdefault("answered", {})
    if key not in memo:
        memo[key] = ask()
    return cast(Kept, memo[key])


def forget(session: Session) -> None:
    session.info.pop("answered", None)
