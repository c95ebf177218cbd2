"""The examples in the docstrings of the core give what they say."""

import doctest
import importlib
import pkgutil
import unittest

from bootmark import core


class Examples(unittest.TestCase):
    def test_every_example_of_the_core_holds(self) -> None:
        tried = 0
        for module in pkgutil.walk_packages(core.__path__, f"{core.__name__}."):
            if not module.name.endswith("__main__"):
                with self.subTest(module=module.name):
                    outcome = doctest.testmod(importlib.import_module(module.name))
                    tried += outcome.attempted
                    self.assertEqual(outcome.failed, 0)
        self.assertGreaterEqual(tried, 15)
