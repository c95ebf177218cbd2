"""The schemas that editors read: as the model has them, true of every file, and quick to see what a biologist types wrongly."""

import tomllib
import unittest
from pathlib import Path
from typing import Any

from jsonschema import Draft202012Validator

from bootmark.core.catalogue import default, loader, schema, short

HERE = Path(loader.HERE)


def table(name: str) -> dict[str, Any]:
    return tomllib.loads((HERE / name).read_text())


class Schemas(unittest.TestCase):
    def test_the_committed_ones_are_as_the_model_has_them(self) -> None:
        for name, document in schema.documents(default()).items():
            self.assertEqual((schema.FOLDER / f"{name}.json").read_text(), schema.text(document), "./bootmark catalogue --write")

    def test_each_is_a_schema_and_every_file_keeps_it(self) -> None:
        by_folder = {loader.KINDS: "kind", short.FOLDER: "rows"}
        files = [(by_folder.get(path.parent.name, "agent"), path) for path in sorted(HERE.glob("*/*.toml"))]
        files += [(name, HERE / f"{name}.toml") for name in ("signs", "crops", "sources")]
        self.assertGreater(len(files), 150)
        schemas = schema.documents(default())
        for name, document in schemas.items():
            with self.subTest(schema=name):
                Draft202012Validator.check_schema(document)
        validators = {name: Draft202012Validator(document) for name, document in schemas.items()}
        for name, path in files:
            faults = [
                f"{list(fault.absolute_path)}: {fault.message[:120]}"
                for fault in validators[name].iter_errors(tomllib.loads(path.read_text()))
            ]
            self.assertEqual(faults, [], path.name)

    def test_what_is_typed_wrongly_is_seen_where_it_stands(self) -> None:
        validator = Draft202012Validator(schema.documents(default())["agent"])
        for change, where in (
            (lambda entry: entry["hosts"].update(often=["peer"]), ["hosts", "often", 0]),
            (lambda entry: entry["signs"]["larva-at-the-core"].update(often="mostly"), ["signs", "larva-at-the-core", "often"]),
            (lambda entry: entry["heat"].update(lower="fifty"), ["heat", "lower"]),
            (lambda entry: entry["heat"]["events"][1].pop("spread"), ["heat", "events", 1]),
            (lambda entry: entry["thresholds"][0].update(source="smith"), ["thresholds", 0, "source"]),
            (lambda entry: entry["life"]["egg"].update(months=[0, 9]), ["life", "egg", "months", 0]),
            (lambda entry: entry["controls"]["granulovirus"].update(kind="biological"), ["controls", "granulovirus", "kind"]),
            (lambda entry: entry.update(sumary="x"), []),
        ):
            entry = table("insects/codling-moth.toml")
            change(entry)
            self.assertEqual([list(fault.absolute_path) for fault in validator.iter_errors(entry)], [where])
