"""`python -m benchmarks`: every table."""

from benchmarks import arranging, first_view, turning, typing_speed, ways

typing_speed.run()
first_view.run()
ways.run()
turning.run()
arranging.run()
