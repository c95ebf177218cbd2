"""Tests, laid out as src is."""

from hypothesis import HealthCheck, settings

# How long a case takes depends on what else the machine does; timings belong in bench.
settings.register_profile("bootmark", deadline=None, suppress_health_check=[HealthCheck.too_slow])
settings.load_profile("bootmark")
