"""`python -m benchmarks`: every table."""

from benchmarks import arranging, first_view, nesting, turning, typing_speed, ways

typing_speed.run()
first_view.run()
ways.run()
nesting.run()
turning.run()
arranging.run()
