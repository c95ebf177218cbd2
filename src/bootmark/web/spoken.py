"""Every text of a template goes through `say`: what stands between tags, and in attributes that people read or hear, is one message.

A template is written in English, as it reads. While it is compiled each run of text, with the expressions that stand in it, becomes a
message with numbered fields; words chosen in an expression (`"today" if late else "soon"`) likewise. So nothing of a page can be left
out of a translation, and nothing need be marked. Words of user's data and of the catalogue come by expressions, and stay as they are.
"""

import re
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any, cast

from flask.templating import Environment
from jinja2 import nodes
from jinja2.visitor import NodeTransformer
from markupsafe import Markup, escape

from bootmark import say

READ = frozenset({"alt", "aria-label", "placeholder", "title"})
"""Attributes whose value is read or heard."""
RAW = frozenset({"script", "style"})
VOID = re.compile(r"&[a-z]+;|&#\d+;")
FIELD = re.compile(r"\{(\d+)\}")
SAID, COUNTED = "said_words", "counted"
"""What a template calls to say its texts; and, by hand, to say one that counts: counted("{of} stop", "{of} stops", number)."""
TAG = re.compile(r"</?([a-zA-Z][\w-]*)|<!")
VALUE = re.compile(r"""(?<![\w:@.-])([\w:@.-]+)=(["'])|>""")


@dataclass(frozen=True)
class Where:
    """Where a piece of a template stands. tag: whose head it is in, or whose raw text; attribute: whose value, with its quote."""

    tag: str = ""
    raw: str = ""
    attribute: str = ""
    quote: str = ""

    @property
    def is_read(self) -> bool:
        return self.attribute in READ if self.tag else not self.raw


@dataclass(frozen=True)
class Piece:
    """A piece of a template's data. is_read: whether people read it; after: where one stands behind it."""

    text: str
    is_read: bool
    after: Where


def pieces(data: str, where: Where) -> Iterator[Piece]:
    """A template's data, cut where what is read begins and ends."""
    place = 0
    while place < len(data):
        cut = _in_value if where.attribute else _in_head if where.tag else _in_raw if where.raw else _in_text
        piece = cut(data, place, where)
        place, where = place + len(piece.text), piece.after
        if piece.text:
            yield piece


def _in_value(data: str, place: int, where: Where) -> Piece:
    end = data.find(where.quote, place)
    if end == place:
        return Piece(where.quote, False, Where(tag=where.tag))
    return Piece(data[place : end if end > 0 else len(data)], where.is_read, where)


def _in_head(data: str, place: int, where: Where) -> Piece:
    match = VALUE.search(data, place)
    if match is None:
        return Piece(data[place:], False, where)
    inside = Where(tag=where.tag, attribute=match.group(1), quote=match.group(2)) if match.group(1) else None
    return Piece(data[place : match.end()], False, inside or Where(raw=where.tag if where.tag in RAW else ""))


def _in_raw(data: str, place: int, where: Where) -> Piece:
    end = data.find(f"</{where.raw}", place)
    return Piece(data[place:], False, where) if end < 0 else Piece(data[place:end], False, Where())


def _in_text(data: str, place: int, where: Where) -> Piece:
    match = TAG.search(data, place)
    if match is None or match.start() > place:
        return Piece(data[place : match.start() if match else len(data)], True, where)
    name = "/" if match.group(0).startswith("</") else (match.group(1) or "!").lower()
    return Piece(match.group(0), False, Where(tag=name))


def has_words(text: str) -> bool:
    return any(letter.isalpha() for letter in VOID.sub("", text))


def said_words(template: str, *values: object) -> Markup:
    """A message of a template in the page's language, its numbered fields filled and escaped."""
    text = say.tongue().template(template)
    if not values:
        return Markup(text)  # noqa: S704 - a template of ours
    return Markup(FIELD.sub(lambda field: str(escape(values[int(field.group(1))])), text))  # noqa: S704


def _call(parts: list[str | nodes.Expr]) -> list[nodes.Expr]:
    """A run of text and expressions as one message, with what is white around it left outside."""
    texts = [part for part in parts if isinstance(part, str)]
    if not has_words("".join(texts)):
        return [nodes.TemplateData(part) if isinstance(part, str) else spoken(part) for part in parts]
    template = ""
    values: list[nodes.Expr] = []
    for part in parts:
        if isinstance(part, str):
            template += part
        else:
            template += f"{{{len(values)}}}"
            values.append(spoken(part))
    bare = template.strip()
    before, after = template[: template.index(bare)], template[template.index(bare) + len(bare) :]
    message = nodes.Call(nodes.Name(SAID, "load"), [nodes.Const(" ".join(bare.split())), *values], [], None, None)
    around = [nodes.TemplateData(white) if white else None for white in (before, after)]
    return [node for node in (around[0], message, around[1]) if node is not None]


def spoken(node: nodes.Expr) -> nodes.Expr:
    """An expression whose value is read: the words that it chooses from become messages."""
    if isinstance(node, nodes.Const):
        return _joined([node.value]) if isinstance(node.value, str) and has_words(node.value) else node
    if isinstance(node, nodes.CondExpr):
        return nodes.CondExpr(node.test, spoken(node.expr1), spoken(node.expr2) if node.expr2 else None)
    if isinstance(node, nodes.Concat):
        return _joined([part.value if isinstance(part, nodes.Const) else part for part in node.nodes])
    if isinstance(node, nodes.Or):
        return nodes.Or(node.left, spoken(node.right))
    if isinstance(node, nodes.Getitem) and isinstance(node.node, (nodes.Dict, nodes.List)):
        return nodes.Getitem(_choices(node.node), node.arg, node.ctx)
    if isinstance(node, nodes.Filter) and node.name in ("default", "join"):
        return nodes.Filter(node.node, node.name, [spoken(arg) for arg in node.args], node.kwargs, node.dyn_args, node.dyn_kwargs)
    if isinstance(node, nodes.Call) and isinstance(node.node, nodes.Name) and node.node.name == COUNTED:
        return node
    if isinstance(node, nodes.Call):
        return cast(nodes.Expr, _handed_on(node))
    return node


def _choices(node: nodes.Dict | nodes.List) -> nodes.Dict | nodes.List:
    if isinstance(node, nodes.List):
        return nodes.List([spoken(item) for item in node.items])
    return nodes.Dict([nodes.Pair(pair.key, spoken(pair.value)) for pair in node.items])


def _joined(parts: list[Any]) -> nodes.Expr:
    calls = _call([part if isinstance(part, (str, nodes.Expr)) else nodes.Const(part) for part in parts])
    if len(calls) == 1:
        return calls[0]
    return nodes.Concat([nodes.Const(part.data) if isinstance(part, nodes.TemplateData) else part for part in calls])


def _capital(title: object) -> bool:
    """Whether a text begins as a title does: with a capital, or with a number and words."""
    if not isinstance(title, str):
        return False
    return (title[:1].isupper() and not title[1:2].isupper()) or (title[:1].isdigit() and len(title.split()) > 1)


class _Titles(NodeTransformer):
    """Words that are handed on to be shown elsewhere: those that begin as a sentence does."""

    def visit_Const(self, node: nodes.Const) -> nodes.Expr:
        return _joined([node.value]) if _capital(node.value) else node

    def visit_Compare(self, node: nodes.Compare) -> nodes.Compare:
        return node

    def visit_Pair(self, node: nodes.Pair) -> nodes.Pair:
        return nodes.Pair(node.key, self.visit(node.value))


def _handed_on(node: Any) -> Any:
    return _Titles().visit(node)


class SpokenEnvironment(Environment):
    """Flask's environment, whose templates speak the page's language."""

    def _parse(self, source: str, name: str | None, filename: str | None) -> nodes.Template:
        template = super()._parse(source, name, filename)
        _say(template.body, Where())
        return template


def _say(body: list[nodes.Node], where: Where) -> Where:
    """Put every text of these nodes through `say`; returns where one stands after them."""
    for node in body:
        if isinstance(node, nodes.Output):
            where = _output(node, where)
        elif isinstance(node, nodes.If):
            after = _say(node.body, where)
            for other in node.elif_:
                _say([other], where)
            _say(node.else_, where)
            where = after
        elif isinstance(node, nodes.For):
            node.iter = _handed_on(node.iter)
            after = _say(node.body, where)
            _say(node.else_, where)
            where = after
        elif isinstance(node, nodes.CallBlock):
            node.call = _handed_on(node.call)
            where = _say(node.body, where)
        elif isinstance(node, nodes.Macro):
            node.defaults = [_handed_on(default) for default in node.defaults]
            _say(node.body, Where())
        elif isinstance(node, nodes.Assign):
            node.node = _handed_on(node.node)
        elif isinstance(node, nodes.Block):
            _say(node.body, where)
        elif hasattr(node, "body"):
            where = _say(node.body, where)
    return where


def _output(node: nodes.Output, where: Where) -> Where:
    parts: list[nodes.Expr] = []
    run: list[str | nodes.Expr] = []

    def flush() -> None:
        if run:
            parts.extend(_call(run))
            run.clear()

    for part in node.nodes:
        if not isinstance(part, nodes.TemplateData):
            if where.is_read:
                run.append(part)
            else:
                parts.append(part)
            continue
        for piece in pieces(part.data, where):
            where = piece.after
            if piece.is_read:
                run.append(piece.text)
            else:
                flush()
                parts.append(nodes.TemplateData(piece.text))
    flush()
    node.nodes = parts
    return where
