"""What the programs that we start are told through their environment."""

import os
import secrets
import subprocess
import sys
from pathlib import Path

from bootmark.launch import cluster as clusters
from bootmark.launch import packages
from bootmark.launch.cluster import Cluster
from bootmark.launch.say import ROOT, VAR


def environment(cluster: Cluster | None = None, **more: str) -> dict[str, str]:
    """The child's environment; the database addresses travel in it, never on a command line."""
    variables = dict(os.environ, PYTHONPATH=str(ROOT / "src"), PYTHONUNBUFFERED="1")
    if cluster:
        for role in clusters.ROLES:
            variables[f"BOOTMARK_{role.removeprefix('bm_').upper()}_URL"] = cluster.url(role)
            variables[f"BOOTMARK_{role.removeprefix('bm_').upper()}_PASSWORD"] = cluster.passwords[role]
    return variables | more


def python(*words: str, env: dict[str, str], quiet: bool = False) -> int:
    done = subprocess.run([str(packages.PYTHON), *words], env=env, cwd=ROOT, capture_output=quiet, text=True)
    if done.returncode and quiet:
        print(done.stderr, file=sys.stderr)
    return done.returncode


def secret(folder: Path = VAR) -> str:
    """The secret that an installation keeps; made at the first call."""
    note = folder / "secret"
    if not note.exists():
        note.parent.mkdir(parents=True, exist_ok=True)
        note.touch(mode=0o600)
        note.write_text(secrets.token_urlsafe(48))
    return note.read_text()
