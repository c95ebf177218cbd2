"""Talking to the person at the terminal: one clear sentence, and what to do."""

import sys
from pathlib import Path

ROOT = Path(__file__).resolve().parents[3]
VAR = ROOT / "var"


class Stop(Exception):
    """A reason to stop, written for the person who ran the command."""


def step(text: str) -> None:
    print(f"  {text}", file=sys.stderr, flush=True)
