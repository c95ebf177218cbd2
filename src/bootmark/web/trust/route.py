"""Trust: what a phone that comes by plain http has to do without, and how it comes by TLS of the farm's own."""

import os
from pathlib import Path

from flask import Blueprint, abort, render_template, request
from werkzeug.wrappers import Response

blueprint = Blueprint("trust", __name__, template_folder=".")
AUTHORITY = "BOOTMARK_AUTHORITY"
"""The file of the farm's own authority, where there is one."""


def _authority() -> Path | None:
    file = Path(os.environ.get(AUTHORITY) or "/nonexistent")
    return file if file.is_file() else None


@blueprint.get("/trust")
def page() -> str:
    return render_template("trust.html", has_authority=_authority() is not None, is_secure=request.is_secure)


@blueprint.get("/authority.crt")
def authority() -> Response:
    file = _authority()
    if file is None:
        abort(404)
    return Response(file.read_bytes(), mimetype="application/x-x509-ca-cert")
