"""`python -m benchmarks`: every table."""

from benchmarks import (
    arranging,
    consignments,
    first_view,
    meshes,
    nesting,
    plans_checked,
    prices,
    turning,
    typing_speed,
    ways,
    while_searching,
)

typing_speed.run()
while_searching.run()
first_view.run()
ways.run()
nesting.run()
prices.run()
turning.run()
arranging.run()
meshes.run()
plans_checked.run()
consignments.run()
