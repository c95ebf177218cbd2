"""What was answered before: in this transaction, or in this process."""

import threading
from collections.abc import Callable, Hashable
from typing import Any, Generic, TypeVar, cast

from cachetools import LRUCache
from sqlalchemy import TextClause, event
from sqlalchemy.orm import ORMExecuteState, Session, UOWTransaction

from bootmark import say

Value = TypeVar("Value")


def once(session: Session, key: tuple[Any, ...], ask: Callable[[], Value]) -> Value:
    """The answer to a question, asked once in a transaction; forgotten as soon as something is written."""
    memo = session.info.setdefault("answered", {})
    if key not in memo:
        memo[key] = ask()
    return cast(Value, memo[key])


def forget(session: Session) -> None:
    session.info.pop("answered", None)


@event.listens_for(Session, "do_orm_execute")
def _written(state: ORMExecuteState) -> None:
    statement = state.statement
    reads = state.is_select or (isinstance(statement, TextClause) and statement.text.lstrip().upper().startswith("SELECT"))
    if not reads:
        forget(state.session)


@event.listens_for(Session, "after_flush")
def _flushed(session: Session, _context: UOWTransaction) -> None:
    forget(session)


class Kept(Generic[Value]):
    """The values asked for last, at most so many, shared by the threads of a process.

    A key names all that its value rests on, but for the language and the formats of whoever asks: a value may hold words and numbers.
    """

    def __init__(self, most: int) -> None:
        self._values: LRUCache[Hashable, Value] = LRUCache(most)
        self._lock = threading.Lock()

    def get(self, key: Hashable) -> Value | None:
        with self._lock:
            return self._values.get((say.tongue().voice, key))

    def put(self, key: Hashable, value: Value) -> Value:
        with self._lock:
            self._values[say.tongue().voice, key] = value
        return value
