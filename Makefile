# Two commands set everything up on a fresh machine: make demo and make test.
.DEFAULT_GOAL := help
.PHONY: help demo demo-reset test fuzz elsewhere soak bench mutants build client screenshots clean

help: ## what there is
	@grep -E '^[a-z-]+:.*##' $(MAKEFILE_LIST) | sed -E 's/:.*## /\t/' | expand -t 16

demo: ## install what is missing, build, and serve the sample sites (DEMO_FLAGS="--listen 127.0.0.1:0")
	@scripts/prepare && scripts/build && exec bin/wakefield demo $(DEMO_FLAGS)

demo-reset: ## the same, with fresh sample sites
	@scripts/prepare && scripts/build && exec bin/wakefield demo --reset $(DEMO_FLAGS)

test: ## install what is missing and test everything
	@scripts/prepare browser && scripts/build && mkdir -p .cache && scripts/test

fuzz: ## search anew for inputs that break something, a minute a target (FUZZ=1h for longer)
	@scripts/prepare && scripts/fuzz $(or $(FUZZ),1m)

elsewhere: ## the tests of Go in other time zones, on other dates and with other seeds
	@scripts/prepare && scripts/build && scripts/elsewhere

soak: ## keep the whole program under load while it is killed, for a minute (SOAK=10m for longer); of many sites on three servers with SITES=2000
	@scripts/prepare browser && scripts/build && WAKEFIELD_SITES=$(SITES) WAKEFIELD_SOAK=$(or $(SOAK),1m) \
		go test -tags soak ./internal/soak -run $(if $(SITES),TestManySites,TestSoak) -count=1 -timeout 0 -v

bench: ## print the figures that the documents promise
	@scripts/prepare browser && scripts/build && go test ./core/... ./internal/device ./internal/server ./internal/api -run '^$$' -bench . && \
	go test ./e2e -run '^$$' -bench . -benchtime 15x

mutants: ## change the code in many places and list what no test notices (MUTANTS="--number 50 core/storage")
	@scripts/prepare && scripts/build && mkdir -p .cache && go run ./internal/mutants $(MUTANTS)

build: ## build the program into bin/
	@scripts/prepare && scripts/build

client: ## generate the TypeScript client from the API
	@scripts/prepare && mkdir -p bin && go build -o bin/wakefield ./cmd/wakefield && \
	bin/wakefield openapi > web/src/api/openapi.json && npm --prefix web run --silent types

screenshots: ## make the pictures of docs/screenshots from the sample sites
	@scripts/prepare browser && scripts/build && mkdir -p docs/screenshots && \
	WAKEFIELD_SCREENSHOTS=$(CURDIR)/docs/screenshots go test ./e2e -run TestScreenshots -count=1

clean: ## remove what was built
	rm -rf bin .cache web/dist/* web/node_modules
