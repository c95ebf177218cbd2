"""python -m bootmark.case: reads cases as JSON lines and answers JSON lines. No database."""

import json
import sys
from typing import Any

from bootmark.case.answer import V, answer
from bootmark.case.asked import Wrong, read
from bootmark.core import ENGINE
from bootmark.core.catalogue import Catalogue, default
from bootmark.core.catalogue.model import PARTS
from bootmark.core.field.tappable import signs_for


def listed(asked: dict[str, Any], catalogue: Catalogue) -> dict[str, Any]:
    """What can be tapped on a plant, by part, in the screen's order."""
    if asked["list"] != "signs":
        raise Wrong(f"{asked['list']!r} can't be listed; did you mean signs?")
    signs = signs_for(catalogue, str(asked.get("crop", "")))
    return {
        "v": V,
        "catalogue": catalogue.hash,
        "engine": ENGINE,
        "parts": [
            {"part": part, "signs": [{"id": sign.id, "sentence": sign.sentence} for sign in signs if sign.part == part]}
            for part in PARTS
            if any(sign.part == part for sign in signs)
        ],
    }


def answered(line: str, catalogue: Catalogue) -> dict[str, Any]:
    """The answer to one line, an error where it can't be read."""
    case_id = None
    try:
        raw = json.loads(line)
        if isinstance(raw, dict):
            case_id = raw.get("id")
            if "list" in raw:
                return listed(raw, catalogue)
        return answer(read(raw, catalogue), catalogue)
    except json.JSONDecodeError as error:
        problem = f"not JSON: {error}"
    except RecursionError:
        problem = "not JSON: too deeply nested"
    except (Wrong, TypeError) as error:
        problem = str(error)
    return {"v": V, "catalogue": catalogue.hash, "engine": ENGINE, "id": case_id, "error": problem}


def main() -> None:
    catalogue = default()
    for line in sys.stdin:
        if line.strip():
            print(json.dumps(answered(line, catalogue), ensure_ascii=False), flush=True)


if __name__ == "__main__":
    main()
