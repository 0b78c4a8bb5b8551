# Everything is installed into .venv and web/node_modules; Chromium comes from Debian's packages.

PORT ?= 8123
DATA ?= var
PY := .venv/bin/python
UV := .venv/bin/uv
SUDO := $(if $(filter 0,$(shell id -u)),,sudo -n)
export PYTHONPATH := $(CURDIR)
export DJANGO_SETTINGS_MODULE := server.config.settings

.PHONY: help setup setup-dev build demo serve account test test-core test-server test-web collected hunt soak e2e bench lint types schema words rooms screenshots demo-designs requirements samples

help:  ## this list
	@grep -hE '^[a-z0-9-]+:.*## ' $(MAKEFILE_LIST) | sed 's/:.*## /\t/' | expand -t 16

.venv/bin/uv:
	python3 -m venv .venv
	.venv/bin/python -m pip install --quiet --disable-pip-version-check uv==0.13.*

.venv/.runtime: requirements.txt | .venv/bin/uv
	$(UV) pip install --quiet --python $(PY) --compile-bytecode -r requirements.txt
	@touch $@

.venv/.development: requirements-dev.txt .venv/.runtime
	$(UV) pip install --quiet --python $(PY) --compile-bytecode -r requirements-dev.txt
	@touch $@

web/node_modules/.installed: web/package.json web/package-lock.json
	cd web && npm ci --no-fund --no-audit --loglevel=error
	@touch $@

/usr/bin/chromium:
	$(SUDO) apt-get update -qq && $(SUDO) apt-get install -y -qq --no-install-recommends chromium

# Drawings of other people, to judge the reading of files by: never committed, never shipped.
ICONS := bootstrap-icons@1.13.2 ionicons@8.1.0 @tabler/icons@3.52.0 @material-design-icons/svg@0.14.15 lucide-static@1.62.0
.samples/.fetched:
	@mkdir -p .samples/packages .samples/icons .samples/debian
	cd .samples/packages && (apt-get download -qq openclipart-svg librsvg2-tests 2>/dev/null || \
	    ($(SUDO) apt-get update -qq && apt-get download -qq openclipart-svg librsvg2-tests 2>/dev/null))
	for package in .samples/packages/*.deb; do dpkg-deb -x $$package .samples/debian; done
	cd .samples/packages && for icons in $(ICONS); do npm pack --silent $$icons >/dev/null; done
	for package in .samples/packages/*.tgz; do folder=.samples/icons/$$(basename $$package .tgz); \
	    mkdir -p $$folder && tar -xzf $$package -C $$folder --wildcards '*.svg'; done
	@rm -rf .samples/packages && touch $@

samples: .samples/.fetched  ## other people's drawings, to judge the reading of files by

setup: .venv/.runtime web/node_modules/.installed
	@$(PY) -m compileall -q stileblade server
setup-dev: setup .venv/.development

web/src/shared/api/openapi.json: .venv/.runtime $(shell find server stileblade -name '*.py')
	@mkdir -p $(dir $@)
	STILEBLADE_DATA=var/build $(PY) manage.py export_openapi_schema --api server.config.api.api --output $@

web/src/shared/api/schema.d.ts: web/src/shared/api/openapi.json web/node_modules/.installed
	cd web && npm run --silent schema

schema: web/src/shared/api/schema.d.ts  ## the API's types for the browser, made from the server

web/dist/index.html: web/node_modules/.installed web/index.html web/vite.config.ts $(shell find web/src -type f -not -name openapi.json) web/src/shared/api/schema.d.ts
	cd web && npm run --silent build
	@touch $@

build: setup web/dist/index.html  ## the front end

demo: build  ## set up and start with demo data (PORT=8123 DATA=var)
	@STILEBLADE_DEMO=1 STILEBLADE_DATA="$(DATA)" exec $(PY) manage.py serve --port $(PORT)

serve: build  ## start without the demo: people sign in (PORT=8123 DATA=var)
	@STILEBLADE_DATA="$(DATA)" exec $(PY) manage.py serve --port $(PORT)

account: setup  ## make an account for `make serve` (DATA=var)
	STILEBLADE_DATA="$(DATA)" $(PY) manage.py migrate --verbosity 0
	STILEBLADE_DATA="$(DATA)" $(PY) manage.py createsuperuser --email ""

test-core: setup-dev .samples/.fetched  ## the core and the server, without a browser
	$(PY) -m pytest -q -n2 --dist=worksteal tests --ignore=tests/e2e

test-web: setup-dev schema  ## the front end's own tests
	cd web && npm run --silent test

hunt: setup-dev  ## random designs, others each time, until one breaks or TIMES=34 times as many as in the tests have not
	STILEBLADE_TIMES=$(or $(TIMES),34) $(PY) -m pytest -q -n2 $$(grep -rlw TIMES tests --include='test_*.py')

soak: setup-dev build  ## editors, cutters, floods, kills and full disks at once, for MINUTES=30
	$(PY) -m bench.soak $(or $(MINUTES),30)

e2e: setup-dev build /usr/bin/chromium  ## the whole job in a real browser
	$(PY) -m pytest -q tests/e2e

collected: setup-dev schema  ## whether every file of tests is run
	$(PY) -m tests.collected

test: collected test-core test-web e2e  ## set up and pass all tests

lint: setup-dev schema  ## style of Python and TypeScript, and the layering
	.venv/bin/ruff check . && .venv/bin/ruff format --check . && .venv/bin/lint-imports --no-logo
	cd web && npm run --silent lint

types: setup-dev schema  ## type checks of both sides
	.venv/bin/mypy
	cd web && npm run --silent types

bench: setup-dev build .samples/.fetched /usr/bin/chromium  ## speed, as ratios measured in the same run
	$(PY) -m bench

demo-designs: setup  ## write demo/designs/*.json anew
	$(PY) -m demo.build

words: setup-dev  ## stileblade/words/en.json: all that is said, gathered from the sources
	$(PY) -m tests.words.gathered

rooms: setup-dev  ## docs/rooms.svg: the rooms and what each knows, from the imports
	$(PY) -m demo.rooms

screenshots: setup-dev build /usr/bin/chromium  ## docs/screenshots, from the demo data
	$(PY) -m demo.screenshots

requirements: .venv/bin/uv  ## lock files, without download addresses
	$(UV) pip compile -q --no-header requirements.in -o requirements.txt
	$(UV) pip compile -q --no-header requirements-dev.in -o requirements-dev.txt
