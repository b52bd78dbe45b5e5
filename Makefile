# The two commands a newcomer needs are `make demo` and `make test`; both set up what is missing.

SHELL := /bin/bash
.DEFAULT_GOAL := help

VENV := .venv
PYTHON := $(VENV)/bin/python
SETUP := .setup
TYPES := frontend/src/api/schema.d.ts
FRONTEND_SOURCES := $(shell find frontend/src frontend/public -type f ! -name schema.d.ts) $(wildcard frontend/*.json frontend/*.ts frontend/*.html)
API_SOURCES := $(shell find lucky_margin/web lucky_margin/core -name '*.py')

.PHONY: help demo test endure bench screenshots controls wheel clean

help:
	@echo "make demo    set up, seed the demo data, serve on 127.0.0.1:8750 (PORT overrides)"
	@echo "make test    set up, lint, check types, run all tests"
	@echo "make endure  fuzz, kill and soak for an hour or so"
	@echo "make bench   measure speed against general-purpose libraries (BASE=COMMIT: against a commit)"

# Parts of the set-up run beside each other.
MAKEFLAGS += --jobs=2

demo: $(SETUP)/run $(SETUP)/compiled frontend/dist/index.html
	@$(PYTHON) -m demo.seed
	@$(PYTHON) -m lucky_margin.cli serve

test: $(SETUP)/dev $(SETUP)/compiled $(SETUP)/chromium $(SETUP)/units/editQueue.js frontend/dist/index.html
	$(VENV)/bin/ruff check .
	$(VENV)/bin/ruff format --check .
	$(VENV)/bin/mypy
	npm --prefix frontend run --silent lint
	npm --prefix frontend run --silent types
	$(PYTHON) -W error -m tests

# What takes long: fuzz, kills and soak at full size, every view in every window; `make test` runs a sample of each.
endure: $(SETUP)/dev $(SETUP)/compiled $(SETUP)/chromium frontend/dist/index.html
	LUCKY_MARGIN_ENDURE=1 $(PYTHON) -W error -m tests tests.endure.test_fuzz tests.endure.test_api_fuzz tests.endure.test_kills tests.endure.test_memory tests.endure.test_soak tests.test_batch tests.test_install tests.browser.test_every_view

bench: $(SETUP)/dev $(SETUP)/compiled
	$(PYTHON) -m bench $(if $(BASE),--base $(BASE))

# docs/controls.md, from the texts that the screen shows.
controls: $(SETUP)/dev
	$(PYTHON) -m docs.write_controls

# Pictures for docs/screenshots, taken from the demo data.
screenshots: $(SETUP)/dev $(SETUP)/chromium frontend/dist/index.html
	$(PYTHON) -m docs.take_screenshots

# An installable package, with the interface inside.
wheel: $(SETUP)/run frontend/dist/index.html
	$(PYTHON) -m tools.build_wheel wheels

clean:
	rm -rf $(VENV) $(SETUP) frontend/node_modules frontend/dist

$(VENV)/bin/python:
	python3 -c 'import sys; sys.exit(sys.version_info < (3, 11) and "Python 3.11 or newer is needed.")'
	python3 -m venv $(VENV)

$(SETUP)/libraries: tools/ensure-debian.sh
	@mkdir -p $(SETUP)
	tools/ensure-debian.sh libEGL.so.1=libegl1 libGL.so.1=libgl1
	@touch $@

$(SETUP)/chromium: tools/ensure-debian.sh
	@mkdir -p $(SETUP)
	tools/ensure-debian.sh /usr/bin/chromium=chromium
	@touch $@

$(SETUP)/run: requirements.txt $(SETUP)/libraries | $(VENV)/bin/python
	$(VENV)/bin/pip install --quiet --disable-pip-version-check -r requirements.txt
	$(VENV)/bin/pip install --quiet --disable-pip-version-check --no-deps --editable .
	@touch $@

# Compiled loops are kept on disk; made here, no first picture waits for them.
$(SETUP)/compiled: $(wildcard lucky_margin/core/sampling/*.py lucky_margin/core/tone/*.py lucky_margin/core/cut_out/distances.py lucky_margin/core/cut_out/deciding.py lucky_margin/core/cut_out/guided_filter.py lucky_margin/core/contour.py) $(SETUP)/run
	@find lucky_margin -name '*.nb[ic]' -delete # numba does not see changes of what a loop calls
	$(PYTHON) -m lucky_margin.core.warm_up
	@touch $@

$(SETUP)/dev: requirements-dev.txt $(SETUP)/run
	$(VENV)/bin/pip install --quiet --disable-pip-version-check -r requirements-dev.txt
	@touch $@

$(SETUP)/node: frontend/package-lock.json
	@mkdir -p $(SETUP)
	npm --prefix frontend ci --no-audit --no-fund --loglevel=error
	@touch $@

# The front end's types come from the service's own description of itself.
$(TYPES): $(SETUP)/node $(SETUP)/run $(API_SOURCES)
	$(PYTHON) -m lucky_margin.web.openapi > $(SETUP)/openapi.json
	npm --prefix frontend run --silent schema >/dev/null
	@touch $@

frontend/dist/index.html: $(SETUP)/node $(TYPES) $(FRONTEND_SOURCES)
	npm --prefix frontend run --silent build -- --logLevel warn
	@touch $@

# Modules of the interface that are tested alone.
$(SETUP)/units/editQueue.js: $(SETUP)/node $(TYPES) $(FRONTEND_SOURCES)
	npm --prefix frontend run --silent units
	@touch $@
