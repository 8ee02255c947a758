# Two commands do everything on a fresh machine: `make demo` and `make test`.

SHELL := /bin/bash
# a machine that forbids it would compile all modules anew at every start
unexport PYTHONDONTWRITEBYTECODE
PYTHON ?= $(shell command -v python3.11 || command -v python3)
SUDO := $(shell [ "$$(id -u)" = 0 ] || echo sudo)
VENV := .venv
BIN := $(VENV)/bin
STAMPS := build/stamps
WORKERS ?= 2
# Debian's Chromium without windows: the same pages for a third of the work
CHROMIUM := chromium-headless-shell
SCRIPTS := $(wildcard src/lovrit/web/static/scripts/*.js src/lovrit/web/static/styles/*.scss src/lovrit/web/static/*.svg)

.DEFAULT_GOAL := help
.PHONY: help setup demo serve test quick check style types layers scripts tests wheel bench soak shots structures judgement events words ratio lock clean browser

help:  ## what can be made
	@awk -F ':.*## ' '/^[a-z]+:.*## / { printf "  make %-11s %s\n", $$1, $$2 }' $(MAKEFILE_LIST)

setup:  ## everything that `make demo` needs; Python's and node's parts at once
	@$(MAKE) --no-print-directory -j2 $(STAMPS)/python $(STAMPS)/assets

$(STAMPS)/venv:
	@mkdir -p $(STAMPS)
	@$(PYTHON) -c 'import sys; assert sys.version_info[:2] == (3, 11), "Python 3.11 is needed"'
	@$(PYTHON) -c 'import ensurepip, venv' 2>/dev/null || { $(SUDO) apt-get update -qq && $(SUDO) apt-get install -y -qq python3-venv; }
	$(PYTHON) -m venv $(VENV)
	@touch $@

$(STAMPS)/python: $(STAMPS)/venv requirements/app.txt requirements/dev.txt pyproject.toml
	$(BIN)/pip install --quiet --disable-pip-version-check --no-compile --require-hashes -r requirements/dev.txt
	$(BIN)/pip install --quiet --disable-pip-version-check --no-deps --no-build-isolation --editable .
	$(BIN)/python -m compileall -q src/lovrit && $(BIN)/python -c 'import lovrit.web.app, lovrit.cli.main'
	@touch $@

$(STAMPS)/node: package-lock.json package.json
	@mkdir -p $(STAMPS)
	npm ci --no-audit --no-fund --loglevel=error
	@touch $@

$(STAMPS)/assets: $(STAMPS)/node tools/assets.mjs $(SCRIPTS)
	node tools/assets.mjs
	@touch $@

$(STAMPS)/browser:
	@mkdir -p $(STAMPS)
	@command -v $(CHROMIUM) >/dev/null || { $(SUDO) apt-get update -qq && $(SUDO) apt-get install -y -qq $(CHROMIUM); }
	@touch $@

browser: $(STAMPS)/browser

demo: setup  ## the demo club on 127.0.0.1; FRESH=1 begins again
	$(BIN)/lovrit demo $(if $(FRESH),--fresh)

serve: setup  ## your own club
	$(BIN)/lovrit serve

test: setup browser  ## all checks and all tests
	@$(MAKE) --no-print-directory -j$(WORKERS) --output-sync=target check wheel
	@$(MAKE) --no-print-directory tests ratio

check: style types layers scripts  ## style, types, layers, scripts

style: setup
	$(BIN)/ruff format --check src tests tools
	$(BIN)/ruff check src tests tools

types: setup
	$(BIN)/mypy

layers: setup
	$(BIN)/lint-imports

scripts: setup
	npx --no-install tsc -p .
	npx --no-install biome lint --error-on-warnings

tests: setup browser  ## the tests of scripts, of the core and the pages, and in a browser
	node --test tests/scripts/
	$(BIN)/pytest -n $(WORKERS) --dist loadfile --no-loadscope-reorder

quick: setup  ## a look in a minute while working: fewer drawn cases, no browser, no fuzz, no kills
	node --test tests/scripts/
	LOVRIT_HYPOTHESIS=dev $(BIN)/pytest -n $(WORKERS) --dist loadfile --no-loadscope-reorder -m "not browser and not slow"

wheel: setup  ## a wheel that runs without node and without this checkout, and a look at it in a clean environment
	rm -rf build/wheel build/lib
	$(BIN)/pip wheel --quiet --disable-pip-version-check --no-deps --no-build-isolation --wheel-dir build/wheel .
	$(PYTHON) tools/wheel.py build/wheel

bench: setup browser  ## speed and memory, with their baselines, in one run
	$(BIN)/python tools/bench.py
	$(BIN)/python tools/placing.py
	$(BIN)/python tools/hearts.py
	$(BIN)/python tools/years.py
	$(BIN)/python tools/slow.py

soak: setup  ## 200 kills at random moments, every statement of every migration, 20,000 requests, eight times the drawn cases
	$(BIN)/python tools/soak.py
	LOVRIT_HYPOTHESIS=long $(BIN)/pytest -n $(WORKERS) --dist loadfile tests/core/place tests/core/test_rules.py tests/core/messages

shots: setup browser  ## every picture of docs/screenshots, from the demo data
	$(BIN)/python tools/shots.py

structures: setup  ## docs/structures.md and its pictures, from the running code
	$(BIN)/python tools/structures.py

judgement: setup  ## docs/judgement.md, from the rules themselves
	$(BIN)/python tools/judgement.py

events: setup  ## what the scripts know of events, from the kinds themselves
	$(BIN)/python tools/events.py

words: setup  ## every word that the pages say, to be read aloud
	$(BIN)/python tools/words.py

ratio:  ## lines of tests to lines of code
	@$(PYTHON) tools/ratio.py

lock:  ## newest versions into the lock files; they name no registry
	$(PYTHON) -m venv build/uv && build/uv/bin/pip install --quiet uv
	cd requirements && for f in app dev; do ../build/uv/bin/uv pip compile --universal --python-version 3.11 \
	  --generate-hashes --upgrade --quiet --custom-compile-command "make lock" $$f.in -o $$f.txt; done
	npm update --omit-lockfile-registry-resolved

clean:  ## all that was made here, the club's data too
	rm -rf $(VENV) node_modules build data src/lovrit/web/static/built .mypy_cache .ruff_cache .pytest_cache .hypothesis
