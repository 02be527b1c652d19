"""`python -m benchmarks`: every table."""

from benchmarks import arranging, first_view, typing_speed

typing_speed.run()
first_view.run()
arranging.run()
