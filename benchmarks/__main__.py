"""`python -m benchmarks`: every table."""

from benchmarks import arranging, first_view, nesting, prices, turning, typing_speed, ways

typing_speed.run()
first_view.run()
ways.run()
nesting.run()
prices.run()
turning.run()
arranging.run()
