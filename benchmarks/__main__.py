"""`python -m benchmarks`: every table."""

from benchmarks import arranging, first_view, turning, typing_speed

typing_speed.run()
first_view.run()
turning.run()
arranging.run()
