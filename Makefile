# Upbeat Ladle. `make help` lists what there is.
SHELL := /bin/bash
.SHELLFLAGS := -eu -o pipefail -c
export GOFLAGS := -buildvcs=false
BIN := bin/upbeat-ladle
DEMO_DB := .data/demo.db
GO_FILES := $(shell git ls-files '*.go' 2>/dev/null)
PROGRAM_FILES := $(shell git ls-files about cmd core document store api demo device starter web/embed.go 2>/dev/null)
WEB_FILES := $(filter-out web/components.d.ts,$(shell git ls-files web 2>/dev/null)) api/openapi.yaml

# Long tests in which nothing runs beside anything else: the race detector has nothing to find in them.
ALONE := TestAMorningOfSixtyPortions|TestSeveralBowlsFromOneBatter|TestEveryFormatOfEveryDocument|TestRestoringLosesNothing|TestAPastIsFilledIn|TestAFileIsPackedWhenItPays|TestNoReferenceOfAFileEndsTheProgram|TestWhatIsRememberedIsWhatIsKept|TestAFullBowl|TestABowlThatTookItsShareOfItself|TestAThousandVariations|TestFromTheRackIntoTheFreezer|TestABoardInTheArchive|TestABatchInTheArchive|TestACopyIsLookedAtAsAWhole|TestACopyADayAndTwoWeeksOfThem|TestEverySchemaSoFarIsBroughtUpToDate|TestHistoriesAreThinned

.DEFAULT_GOAL := help
.PHONY: help demo demo-reset test quick night build check audit generate notices bench mutants evidence screenshots chromium clean

help: ## list the targets
	@grep -E '^[a-z-]+:.*## ' $(MAKEFILE_LIST) | sed -E 's/^([a-z-]+):.*## /\1\t/' | expand -t 14

demo: $(BIN) ## build what changed and serve the demo kitchen on this machine
	$(BIN) serve --demo --db $(DEMO_DB)

demo-reset: ## put the demo kitchen back to its first morning
	rm -f $(DEMO_DB) $(DEMO_DB)-wal $(DEMO_DB)-shm

build: $(BIN) ## build the front end and the program

web/node_modules/.installed: web/package.json web/package-lock.json
	cd web && npm ci --no-audit --no-fund --ignore-scripts
	touch $@

web/dist/index.html: web/node_modules/.installed $(WEB_FILES)
	cd web && npm run --silent build

$(BIN): web/dist/index.html $(PROGRAM_FILES) go.mod go.sum
	go build -ldflags "-X upbeatladle/about.Commit=$$(git rev-parse --short HEAD 2>/dev/null || true)" -o $@ ./cmd/upbeat-ladle

# What is written by a command and committed all the same.
GENERATED = $(shell git ls-files api/api.gen.go web/src/api/schema.d.ts docs/formats/*.json house/common.bin)
CORE_TESTS = REQUIRE_FOOD_TABLE=1 go test -timeout 12m -json ./core/...

check: build ## static checks of both sides, the tests of the core, and that what is written by a command is current
	@unformatted=$$(gofmt -l $(GO_FILES)); test -z "$$unformatted" || { echo "gofmt these: $$unformatted"; exit 1; }
	go vet ./...
	go tool staticcheck ./...
	@go tool gocyclo -over 20 -ignore '_test\.go|\.gen\.go|node_modules|/zz_' . || { echo 'these have more than 20 ways through: make them simpler'; exit 1; }
	go mod tidy -diff
	go run ./about/write -check
	GOOS=js GOARCH=wasm go build ./core/... ./document/...
	cd web && npm run --silent types && npm run --silent lint && npm run --silent format
	@tmp=$$(mktemp -d); cp --parents $(GENERATED) $$tmp; $(MAKE) --no-print-directory generate >/dev/null; \
	for f in $(GENERATED); do cmp $$f $$tmp/$$f || { echo "$$f was out of date: commit what make generate wrote"; exit 1; }; done
	$(CORE_TESTS) | go run ./internal/evidence/write -check docs/evidence.md
	go run ./internal/mutants -draw 3

audit: web/node_modules/.installed ## ask the registry for known faults of what ships, where it answers
	@cd web && out=$$(npm audit --omit=dev --audit-level=high --json 2>/dev/null) && status=0 || status=$$?; \
	case "$$out" in *auditReportVersion*) echo "$$out" | head -c 2000; exit $$status;; *) echo "npm audit: this registry does not answer it, skipped";; esac

# Packages in which much runs beside much else: their tests run once, with the race detector.
RACED := ./store ./device ./kitchen ./house ./api

test: chromium build check audit ## everything: static checks, all tests, the real interface in Chromium
	cd web && npm run --silent test
	REQUIRE_BROWSER=1 go test -timeout 12m $$(go list ./... | grep -v '/e2e$$\|^upbeatladle/core\|^upbeatladle/\(store\|device\|kitchen\|house\|api\)$$')
	go test -timeout 10m -run '$(ALONE)' $(RACED)
	e2e/twice
	go test -race -timeout 10m -skip '$(ALONE)' $(RACED)

quick: build ## for the loop: what is formatted, vetted and typed, and the tests of both sides without the browser and the race detector
	@unformatted=$$(gofmt -l $(GO_FILES)); test -z "$$unformatted" || { echo "gofmt these: $$unformatted"; exit 1; }
	go vet ./...
	cd web && npm run --silent types && npm run --silent lint && npm run --silent test
	go test -timeout 5m $$(go list ./... | grep -v '/e2e$$\|/cmd/')

night: export EVERY_THEME = 1
night: test ## far more of everything: every change of core, every state in both themes, random documents, kills, drawn laws, fuzzed readers
	RANDOM_DOCUMENTS=20000 KILL_ROUNDS=200 go test -timeout 60m ./document ./cmd/upbeat-ladle
	go test -timeout 60m ./core/batch ./core/worksheet -rapid.checks=500
	go run ./internal/mutants
	@grep -rlE '^func Fuzz' --include=*_test.go . | xargs -n1 dirname | sort -u | while read -r dir; do \
	for f in $$(grep -hoE '^func Fuzz[A-Za-z]+' $$dir/*_test.go | cut -c6-); do go test -run '^$$' -fuzz "^$$f\$$" -fuzztime 60s $$dir; done; done

generate: web/node_modules/.installed ## write what is generated from api/openapi.yaml
	go generate ./api
	go run ./api/schemas
	go run ./house/common
	cd web && npm run --silent api

notices: web/node_modules/.installed ## write about/notices.json, the notices of everything that ships
	go run ./about/write

bench: build ## print the speed of the solver, of a worksheet, of one over HTTP, and of a drag on the bench
	go test -run '^$$' -bench . -benchmem ./core/balance ./core/heat ./core/portion ./core/recipe ./core/worksheet ./demo ./document
	go test -run '^$$' -bench "HTTP|Tick" -benchtime 3x ./api
	TIMINGS=1 go test -count=1 -v -run '^TestDragTime|^TestHowSoon' ./e2e | grep -E '^(drag|weight|ok|FAIL|---)'

mutants: ## change one figure of the core at a time, and see that its tests notice
	go run ./internal/mutants

evidence: web/node_modules/.installed ## write docs/evidence.md out of the tests that compare with values from outside
	$(CORE_TESTS) | go run ./internal/evidence/write docs/evidence.md && tail -1 docs/evidence.md

screenshots: chromium build ## take the pictures in docs/screenshots from the demo kitchen
	go run ./e2e/screenshots

INSTALL = apt-get update && DEBIAN_FRONTEND=noninteractive apt-get install -y --no-install-recommends
chromium: ## install Debian's Chromium when it is missing: its headless build, which takes two thirds of the time
	@command -v chromium-headless-shell >/dev/null || { $(INSTALL) chromium-headless-shell; } || command -v chromium >/dev/null || { $(INSTALL) chromium; }
	@command -v pdftotext >/dev/null || { $(INSTALL) poppler-utils; }

clean: ## remove what was built, keep the demo's data
	rm -rf bin web/node_modules
	find web/dist -mindepth 1 ! -name .keep -delete
