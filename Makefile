# Two commands: make demo, make test. Each step leaves a stamp in .stamps and is done again only when its sources change.

PYTHON ?= python3
VENV := .venv
BIN := $(VENV)/bin
STAMPS := .stamps
PORT ?= 8740
TEST_WORKERS ?= 2

# Some machines are set to compile every module anew in every process; the tests start hundreds.
export PYTHONDONTWRITEBYTECODE :=

API_TYPES := web/src/lib/api/schema.d.ts
WEB_SOURCES := $(filter-out $(API_TYPES), $(shell find web/src web/public -type f)) web/index.html web/vite.config.ts web/svelte.config.js web/tsconfig.json web/printed-letters.js

.PHONY: demo setup test most-tests all-tests checks lint types unit browser chromium pictures bench attack schemas wheel clean

demo: setup
	$(BIN)/fardo demo --port $(PORT)

setup: $(STAMPS)/python $(STAMPS)/web

# --- What everything stands on --------------------------------------------------------------------------------------

$(STAMPS)/python: requirements.lock pyproject.toml
	@mkdir -p $(STAMPS)
	@$(PYTHON) -c 'import sys; sys.exit("Fardo needs Python 3.11 or newer; this is " + sys.version) if sys.version_info < (3, 11) else None'
	@test -x $(BIN)/python || $(PYTHON) -m venv $(VENV) || { echo "Python's venv is missing; on Debian: apt install python3-venv"; exit 1; }
	$(BIN)/python -m pip install --quiet --disable-pip-version-check --require-hashes -r requirements.lock
	$(BIN)/python -m pip install --quiet --disable-pip-version-check --no-build-isolation --no-deps -e .
	$(BIN)/python -c "from fardo.core.arrange.compiled import warm; warm()"
	@touch $@

$(STAMPS)/python-dev: requirements-dev.lock $(STAMPS)/python
	$(BIN)/python -m pip install --quiet --disable-pip-version-check --require-hashes -r requirements-dev.lock
	@touch $@

$(STAMPS)/node: web/package-lock.json
	@mkdir -p $(STAMPS)
	cd web && npm ci --no-fund --no-audit --loglevel=error
	@touch $@

# The types of every call, made from the description of the API.
$(API_TYPES): web/openapi.json $(STAMPS)/node
	cd web && npm run --silent types >/dev/null
	@touch $@

$(STAMPS)/web: $(STAMPS)/node $(API_TYPES) $(WEB_SOURCES)
	cd web && npm run --silent build
	@touch $@

# --- Checks ---------------------------------------------------------------------------------------------------------

# Two at a time, as most machines have two processors: three of them wait for each other.
test: setup $(STAMPS)/python-dev chromium
	@$(MAKE) --no-print-directory -j2 --output-sync=target most-tests checks
	@echo "All checks passed."

# All but the tests that take longest.
most-tests: setup $(STAMPS)/python-dev chromium
	$(BIN)/pytest -n $(TEST_WORKERS) --dist worksteal -m "not long" --doctest-modules src/fardo/core tests

# Before something is called done.
all-tests: setup $(STAMPS)/python-dev chromium
	$(BIN)/pytest -n $(TEST_WORKERS) --dist worksteal --doctest-modules src/fardo/core tests

checks:
	@$(MAKE) --no-print-directory lint types

lint: $(STAMPS)/python-dev $(STAMPS)/node $(API_TYPES)
	$(BIN)/ruff check src tests benchmarks
	$(BIN)/ruff format --check src tests benchmarks
	$(BIN)/lint-imports --no-logo
	cd web && npm run --silent lint
	cd web && npm run --silent format:check

types: $(STAMPS)/python-dev $(STAMPS)/node $(API_TYPES)
	$(BIN)/mypy
	cd web && npm run --silent check

unit: setup $(STAMPS)/python-dev
	$(BIN)/pytest -n $(TEST_WORKERS) --dist worksteal --doctest-modules src/fardo/core tests/core tests/outside tests/api

browser: setup $(STAMPS)/python-dev chromium
	$(BIN)/pytest tests/browser

# A browser and its driver: there already, or from the system's packages.
chromium:
	@if command -v chromium >/dev/null && command -v chromedriver >/dev/null; then :; \
	elif command -v apt-get >/dev/null && [ "$$(id -u)" = 0 ]; then \
	  apt-get update -qq && DEBIAN_FRONTEND=noninteractive apt-get install -y -qq chromium chromium-driver; \
	elif command -v apt-get >/dev/null && sudo -n true 2>/dev/null; then \
	  sudo apt-get update -qq && sudo DEBIAN_FRONTEND=noninteractive apt-get install -y -qq chromium chromium-driver; \
	else echo "The browser tests need chromium and chromedriver; on Debian: apt install chromium chromium-driver"; exit 1; fi

# --- Made from the models, the screens and the clock ----------------------------------------------------------------

schemas: setup $(STAMPS)/python-dev
	$(BIN)/python -m fardo.schemas .
	$(BIN)/python -m tests.starting_values
	@$(MAKE) --no-print-directory $(API_TYPES)

pictures: setup $(STAMPS)/python-dev chromium
	$(BIN)/python -m tests.browser.pictures docs/screenshots

bench: setup $(STAMPS)/python-dev chromium
	$(BIN)/python -m benchmarks

# The shop attacked; briefly unless told: make attack ATTACK="--requests 100000 --kills 1000 --jobs 100000"
attack: setup $(STAMPS)/python-dev
	$(BIN)/python -m benchmarks.attack $(ATTACK)

# One file that holds the built screens too: it runs where there is no Node (pipx install dist/fardo-*.whl).
wheel: setup
	rm -rf build dist
	$(BIN)/python -m pip wheel --quiet --disable-pip-version-check --no-deps --no-build-isolation --wheel-dir dist .
	rm -rf build
	@ls dist

clean:
	rm -rf $(VENV) $(STAMPS) web/node_modules src/fardo/static $(API_TYPES)
