"""Units that people read in, against those of SciPy (CODATA and the yard and pound of 1959)."""

import unittest

from hypothesis import given
from hypothesis import strategies as st
from scipy import constants

from bootmark.core.units import Quantity, Scale, System, unit


class Units(unittest.TestCase):
    def test_factors_are_those_of_a_reference(self) -> None:
        for quantity, stored, shown in (
            (Quantity.WIND, 1.0, constants.mph),
            (Quantity.RAIN, 1e-3, constants.inch),
            (Quantity.AREA, constants.hectare, constants.acre),
            (Quantity.LENGTH, 1.0, constants.foot),
        ):
            self.assertAlmostEqual(unit(quantity, System.US).times * shown / stored, 1.0, places=9, msg=quantity)
        self.assertAlmostEqual(unit(Quantity.WIND, System.UK).times * constants.mph, 1.0)

    def test_a_temperature_has_an_offset_and_a_difference_has_none(self) -> None:
        for celsius in (-40.0, 0.0, 31.1, 100.0):
            fahrenheit = constants.convert_temperature(celsius, "Celsius", "Fahrenheit")
            self.assertAlmostEqual(unit(Quantity.TEMPERATURE, scale=Scale.FAHRENHEIT).shown(celsius), float(fahrenheit))
        for quantity in (Quantity.WARMTH, Quantity.HEAT):
            self.assertAlmostEqual(unit(quantity, scale=Scale.FAHRENHEIT).shown(10.0), 10 * constants.degree_Fahrenheit**-1)

    @given(st.sampled_from(Quantity), st.sampled_from(System), st.sampled_from(Scale), st.floats(-1e6, 1e6))
    def test_what_is_shown_is_read_back(self, quantity: Quantity, system: System, scale: Scale, stored: float) -> None:
        own = unit(quantity, system, scale)
        self.assertAlmostEqual(own.stored(own.shown(stored)), stored, places=6)

    def test_every_system_and_scale_tells_every_quantity_between_them(self) -> None:
        for system in System:
            for scale in Scale:
                self.assertTrue(all(unit(quantity, system, scale).symbol for quantity in Quantity))
