"""Scripts as modules. Their address names a language and what is in all of them: a module finds the others of its own version beside it."""

import functools
import hashlib
import json
from pathlib import Path

from flask import Blueprint, Response, current_app, send_from_directory, url_for

from bootmark import say
from bootmark.say import scripts

blueprint = Blueprint("script", __name__)
FOLDER = Path(__file__).resolve().parents[1] / "static" / "js"
WORDS = "lib/texts.js"
"""The one module that is made, not kept: what scripts say in a language."""
YEAR = 365 * 24 * 3600


@functools.cache
def version_of(language: str) -> str:
    content = hashlib.sha256(_words(language).encode())
    for path in sorted(FOLDER.rglob("*.js")):
        content.update(path.read_bytes())
    return f"{language}-{content.hexdigest()[:12]}"


@functools.cache
def _words(language: str) -> str:
    return f"export const texts = {json.dumps(scripts.texts(say.TONGUES[language]), ensure_ascii=False)};\n"


@functools.lru_cache(maxsize=256)
def _address(_root: str, name: str, language: str) -> str:
    return url_for("script.module", version=version_of(language), name=name)


def address(name: str) -> str:
    """Where a module stands, for whoever is spoken to."""
    return _address(current_app.config["APPLICATION_ROOT"], name, say.tongue().language)


@blueprint.get("/scripts/<version>/<path:name>")
def module(version: str, name: str) -> Response:
    language = version.rpartition("-")[0]
    spoken = language if language in say.TONGUES else say.ENGLISH.language
    answer = Response(_words(spoken), mimetype="text/javascript") if name == WORDS else send_from_directory(FOLDER, name)
    # Another version's page gets what there is now, and keeps none of it.
    answer.headers["Cache-Control"] = f"public, max-age={YEAR}, immutable" if version == version_of(spoken) else "no-store"
    return answer
