"""The shop attacked: requests made up, processes killed, files hostile, carriers that sell and say nothing.

`python -m benchmarks.attack` runs all of it briefly and prints tables; `--requests 100000 --kills 1000` as it was run
for docs/reliability.md. Quick forms of each are in `make test`.
"""
