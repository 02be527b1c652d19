"""`python -m benchmarks`: every table."""

from benchmarks import arranging, consignments, first_view, meshes, nesting, prices, turning, typing_speed, ways

typing_speed.run()
first_view.run()
ways.run()
nesting.run()
prices.run()
turning.run()
arranging.run()
meshes.run()
consignments.run()
