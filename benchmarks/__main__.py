"""`python -m benchmarks`: every table."""

from benchmarks import first_view, typing_speed

typing_speed.run()
first_view.run()
