"""What was answered before: in this transaction, or in this process."""

import threading
from collections import OrderedDict
from collections.abc import Callable, Hashable
from typing import Any, Generic, TypeVar, cast

from sqlalchemy.orm import Session

Value = TypeVar("Value")


def once(session: Session, key: tuple[Any, ...], ask: Callable[[], Value]) -> Value:
    """The answer to a question, asked once in a transaction; forgotten as soon as something is written."""
    memo = session.info.setdefault("answered", {})
    if key not in memo:
        memo[key] = ask()
    return cast(Value, memo[key])


def forget(session: Session) -> None:
    session.info.pop("answered", None)


class Kept(Generic[Value]):
    """The values asked for last, at most so many, shared by the threads of a process. A key names all that its value rests on."""

    def __init__(self, most: int) -> None:
        self._most = most
        self._values: OrderedDict[Hashable, Value] = OrderedDict()
        self._lock = threading.Lock()

    def get(self, key: Hashable) -> Value | None:
        with self._lock:
            if key not in self._values:
                return None
            self._values.move_to_end(key)
            return self._values[key]

    def put(self, key: Hashable, value: Value) -> Value:
        with self._lock:
            self._values[key] = value
            self._values.move_to_end(key)
            while len(self._values) > self._most:
                self._values.popitem(last=False)
        return value
