"""A command is declared once: its kind, shape, limits and roles. Forms, the outbox, docs and tests are made from it.

A declaration knows no database. `errors_of` puts everything that is wrong with a payload into our own sentences.
"""

from collections.abc import Collection, Iterator, Mapping
from dataclasses import dataclass
from enum import StrEnum
from typing import Any, ClassVar, Self, get_args

from pydantic import BaseModel, ConfigDict, ValidationError

from bootmark import say
from bootmark.services.base.fields import EMPTY, Checks, Rule, rule_of
from bootmark.services.base.roles import Role


class Refused(Exception):
    """The command can't be stored. errors: field to what is wrong and what would be right."""

    def __init__(self, **errors: str) -> None:
        super().__init__("; ".join(errors.values()))
        self.errors = errors


class Forbidden(Refused):
    """This role may not do it."""

    @classmethod
    def unless(cls, role: Role, roles: Collection[Role]) -> None:
        """Raises Forbidden, with what it takes, where a role is none of those."""
        if role not in roles:
            raise cls(role=say.line("A {role} can't do this; it takes {roles}.", role=role, roles=" or ".join(sorted(roles))))


class AskFirst(Refused):
    """It is a signature, and whoever signs has not said who it is within the hour."""

    def __init__(self, why: str = say.line("Your sign-in is more than an hour old: type your password.")) -> None:
        super().__init__(password=why)


class OtherContent(Refused):
    """The command's id has been used for something else."""


class TooEarly(Refused):
    """What it refers to has not arrived yet: send it again later."""


class Answer(StrEnum):
    """What became of a command that was sent; the values go over the wire, and phones of long ago know them.

    Stored; kept beside the head; what it refers to is not here yet; refused; a signature for which who it is must be said again; the
    same id came before with other content; the database was busy; unforeseen, logged.
    """

    STORED = "stored"
    CONFLICT = "conflict"
    WAIT = "wait"
    REFUSED = "refused"
    ASK = "ask"
    OTHER_CONTENT = "other content"
    AGAIN = "again"
    FAULT = "fault"


@dataclass(frozen=True)
class Spec:
    """kind: permanent, as devices send it; v: of its shape; roles: who may send it; signs: whether it is somebody's signature."""

    kind: str
    v: int
    roles: frozenset[Role]
    signs: bool = False


class Command(BaseModel):
    """One kind of write. Subclasses give kind, v and roles, and their fields; `across` compares fields with each other."""

    model_config = ConfigDict(strict=True, extra="forbid", frozen=True)
    spec: ClassVar[Spec]

    def __init_subclass__(cls, *, kind: str = "", v: int = 1, roles: Collection[Role] = (), signs: bool = False, **config: Any) -> None:
        super().__init_subclass__(**config)
        cls.spec = Spec(kind, v, frozenset(roles), signs)

    def across(self, checks: Checks) -> Iterator[tuple[str, str]]:
        """What is wrong between fields, each of which is right by itself: field and sentence."""
        yield from ()

    @classmethod
    def about(cls) -> str:
        return (cls.__doc__ or "").strip().splitlines()[0]

    @classmethod
    def read(cls, payload: Any, checks: Checks) -> Self:
        """A payload as this command. Raises Refused with everything that is wrong."""
        try:
            command = cls.model_validate(payload, context=checks)
        except ValidationError as error:
            raise Refused(**errors_of(error)) from None
        errors: dict[str, str] = {}
        for field, sentence in command.across(checks):
            errors.setdefault(field, sentence)
        if errors:
            raise Refused(**errors)
        return command

    @classmethod
    def of_form(cls, form: Mapping[str, str]) -> dict[str, Any]:
        """A form's texts as a payload: each field read by its own rule; fields of a dict stand there as "field.key"."""
        payload: dict[str, Any] = {}
        for name, field in cls.model_fields.items():
            rule = rule_of(field.annotation, field.metadata)
            if rule is None:
                payload[name] = _texts_of(name, field.annotation, form)
            elif name in form:
                payload[name] = rule.of_text(form[name])
            elif rule.of_text("") is False:
                payload[name] = False
        return payload


def _texts_of(name: str, annotation: Any, form: Mapping[str, str]) -> dict[str, Any]:
    """The entries of a dict that somebody filled in."""
    rule = rule_of(get_args(annotation)[1], [])
    start = f"{name}."
    filled = {key.removeprefix(start): text for key, text in form.items() if key.startswith(start) and text.strip()}
    return {key: rule.of_text(text) if isinstance(rule, Rule) else text for key, text in filled.items()}


SAID = {
    "missing": EMPTY,
    "model_type": "This must be a set of named fields.",
    "dict_type": "This must be a set of named values.",
}


def errors_of(error: ValidationError) -> dict[str, str]:
    """Field to sentence. A field of a dict is named "field.key"."""
    errors: dict[str, str] = {}
    for fault in error.errors(include_url=False, include_input=False):
        where = ".".join(str(part) for part in fault["loc"] if part != "[key]").encode("utf-8", "replace").decode() or "payload"
        if fault["type"] == "extra_forbidden":
            errors.setdefault(
                "payload", say.line("{where} is not a field of this command: load the page again and send it once more.", where=where[:60])
            )
        else:
            errors.setdefault(where, fault["msg"] if fault["type"] == "wrong" else say.line(SAID.get(fault["type"], "This can't be read.")))
    return errors
