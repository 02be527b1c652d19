"""The shop's memory: one SQLite file, plain SQL, one module an aggregate."""
