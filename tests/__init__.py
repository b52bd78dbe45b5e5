"""All tests."""

from hypothesis import settings

# The machine may be busy; what makes examples fixed on CI stays.
settings.register_profile("unhurried", settings(), deadline=None)
settings.load_profile("unhurried")
