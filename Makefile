.PHONY: demo test exact journeys faults ready check bench accuracy abroad defend fuzz kill load memory audit lock assets shots docs clean

# Tests start many processes: without compiled files each of them compiles all modules anew.
unexport PYTHONDONTWRITEBYTECODE
# One thread of linear algebra for each worker: two workers fight over two cores otherwise.
test exact journeys faults: export OPENBLAS_NUM_THREADS = 1
test exact journeys faults: export OMP_NUM_THREADS = 1
# A file stays on one worker, so that what its tests share is made once; the longest come first.
# Three workers on two cores: where one waits for a browser or a server, another goes on.
USUAL = (not journey or essential) and not thorough
PYTEST = .venv/bin/python -m pytest -n 3 --dist loadfile --no-loadscope-reorder

demo: ## Install and start the application with demo data
	@./tools/setup.sh run
	@.venv/bin/wattmetron demo $(if $(PORT),--port $(PORT))

ready: ## Install what the tests need
	@./tools/setup.sh dev
	@./tools/chromium.sh

test: ready check ## Everything that a change should be tested with
	$(PYTEST) -m "$(USUAL)"

exact: ready ## What tries much, in full: brute force, integer programs, properties, kills, floods
	WATTMETRON_EXTENT=full $(PYTEST) -m "exhaustive or thorough"

journeys: ready ## All journeys through the application in a browser
	WATTMETRON_EXTENT=full $(PYTEST) tests/e2e

faults: ready ## Deliberate faults, one at a time: which of them do the tests catch?
	.venv/bin/python -m tests.faults

check: ## Format, linter, types, layers
	.venv/bin/ruff format --check .
	.venv/bin/ruff check .
	.venv/bin/mypy -n 2
	.venv/bin/lint-imports --no-cache
	.venv/bin/python -m tools.format_templates --check

bench: ## Speed and size, as ratios measured in one run
	@./tools/setup.sh dev
	@./tools/chromium.sh
	.venv/bin/python -m tests.bench.run

accuracy: ## Score the estimates against worlds whose truth is known (some minutes)
	@./tools/setup.sh dev
	.venv/bin/python -m tests.accuracy.run --write

abroad: ## Score the estimates in worlds of other forms than the model's (some minutes)
	@./tools/setup.sh dev
	.venv/bin/python -m tests.accuracy.abroad --write

defend: ## Count what a builder would not hand over in 250 proposals (a minute)
	@./tools/setup.sh dev
	.venv/bin/python -m tests.defend.run --write
	.venv/bin/python -m tests.defend.exact

fuzz: ## 20,000 random requests; none may end in a 5xx (half an hour)
	@./tools/setup.sh dev
	.venv/bin/python -m tests.strain.fuzz

kill: ## 400 kills in the middle of everything that is stored
	@./tools/setup.sh dev
	.venv/bin/python -m tests.strain.kill

load: ## 50 users for a minute, and a simple page beside 50 cold proposals (needs quiet cores)
	@./tools/setup.sh dev
	.venv/bin/python -m tests.strain.load

memory: ## What three hundred requests, a hundred questions and forty waiting tabs leave in memory
	@./tools/setup.sh dev
	.venv/bin/python -m tests.strain.memory

audit: ## Licences, bill of materials, known advisories
	@./tools/setup.sh dev
	.venv/bin/python tools/audit.py

lock: ## Write the lock files anew (needs uv)
	./tools/lock.sh

assets: ## Build styles and copy scripts and fonts (needs Node; the result is committed)
	cd assets && npm ci --omit-lockfile-registry-resolved && npm run build

shots: ## Take the committed pictures of the main views from demo data
	@./tools/setup.sh dev
	@./tools/chromium.sh
	.venv/bin/python -m tests.shots

clean:
	rm -rf .venv build dist *.egg-info src/*.egg-info

docs: ## Write the generated parts of the documentation
	.venv/bin/python -m tools.write_docs
