# Deep Bay. On a fresh machine `make demo` and `make test` do all set-up
# themselves; they need Go, Node with npm, and, for the tests, apt-get.

VERSION := $(shell git describe --always --dirty 2>/dev/null || echo unversioned)
export APP_VERSION := $(VERSION)

WEB_SOURCES := $(shell find web/src web/static -type f) web/package.json web/svelte.config.js web/vite.config.ts
GO_SOURCES := $(shell find cmd internal demo docs/schema -type f) go.mod go.sum web/embed.go

.PHONY: demo build test check audit bench soak fuzz measure replica-drill screenshots generate clean

demo: bin/deepbay
	bin/deepbay demo

build: bin/deepbay

# The collector may let a heap grow to five times what lives: these machines have two cores.
test: web/build/index.html .setup/chromium
	GOGC=400 go test ./...

check: .setup/npm
	@test -z "$$(gofmt -l cmd internal demo docs web/*.go e2e bench)" || { gofmt -l cmd internal demo docs web/*.go e2e bench; echo "run gofmt -w on these"; exit 1; }
	go vet ./... && cd bench && go vet ./...
	go tool staticcheck ./...
	cd web && npm run --silent check && npm run --silent lint

# What is known against the packages in use: 0 nothing, 1 something, 2 it could not be asked.
audit: .setup/npm
	scripts/audit

# The proofs by random machines, jobs, boards, kills and disks: minutes, or with SOAK=long
# hours, which is what docs/reliability.md and docs/performance.md table.
soak-size = $(if $(filter long,$(SOAK)),$(2),$(1))
soak:
	go test ./internal/core/plan -timeout 2h -run 'Exhaustive|Proved|Helps' -questions $(call soak-size,500,10000)
	go test ./internal/core/job -timeout 2h -run 'Random|Rounds|DoesNotGo|DiffersAnyway' -jobs $(call soak-size,500,20000) -planevery 1
	go test ./internal/core/job -timeout 4h -run TestDataLaw -walks $(call soak-size,10000,100000) -v
	go test ./internal/core/cure -timeout 2h -run CuresCure -machines $(call soak-size,500,20000)
	go test ./internal/core/fit -timeout 2h -run Machines -machines $(call soak-size,1000,20000)
	go test ./internal/core/fault -timeout 2h -run 'Touches|Pairs' -machines $(call soak-size,2000,10000) -pairs $(call soak-size,100,1000)
	go test ./internal/core/fit -timeout 2h -run 'Narrows|Untold|WhatIsMissing' -narrowed $(call soak-size,500,20000)
	go test ./internal/server -run EveryPlacement -attacked $(call soak-size,20,2000) -apart 1 -v -timeout 4h
	go test ./internal/store -timeout 2h -run NoByte -flips $(call soak-size,60,200) -v
	go test ./internal/store -timeout 2h -run TestBackup -backups $(call soak-size,50,200) -v
	go test ./cmd/deepbay -timeout 2h -run 'TestKill$$' -kills $(call soak-size,100,2000) -v
	go test ./cmd/deepbay -timeout 3h -run TestKillOnBadDisk -troubles $(call soak-size,20,2000) -v
	go test ./e2e -timeout 2h -run ChartHolds -charts $(call soak-size,500,5000)
	go test ./cmd/deepbay -timeout 2h -run TestLoad -clients 200 -lasting $(call soak-size,1m,10m) -calm $(call soak-size,5s,130s) -v

# Each fuzz target for so long, with a bound on making inputs smaller, which would take all of it.
FUZZTIME ?= 5m
fuzz:
	@for t in quantity:ParseBytes memory:ReadCode memory:Code shorthand:Read shelf:ReadCSV rig:Path intake:Read measure:Read; do \
		go test ./internal/core/$${t%%:*} -run '^$$' -fuzz "^Fuzz$${t##*:}$$" -fuzztime $(FUZZTIME) -fuzzminimizetime 10x || exit 1; \
	done
	@for t in picture:Read format:Job format:MarredJob format:Other store:Archive store:Shop probe:Tables probe:Tree probe:Windows; do \
		go test ./internal/$${t%%:*} -run '^$$' -fuzz "^Fuzz$${t##*:}$$" -fuzztime $(FUZZTIME) -fuzzminimizetime 10x || exit 1; \
	done

# Loading times of every view in Chromium, which docs/loading.md tables.
measure: web/build/index.html .setup/chromium
	go test ./e2e -count=1 -run TestMeasure -measure "$(CURDIR)/docs/loading.md" -v

# A first machine dies while its data file is streamed to a second one; see docs/replica.md.
replica-drill: bin/litestream web/build/index.html
	go test ./cmd/deepbay -count=1 -timeout 1h -run TestReplicaDrill -engine "$(CURDIR)/bin/litestream" -v

bin/litestream: replica/go.mod replica/go.sum
	cd replica && go build -trimpath -ldflags "-s -w" -o ../$@ github.com/benbjohnson/litestream/cmd/litestream

bench: bin/deepbay
	go test -run '^$$' -bench . -benchmem ./internal/core/fault ./internal/core/fit ./internal/core/plan ./internal/core/job ./internal/server ./cmd/deepbay
	cd bench && go test -run '^$$' -bench . .

screenshots: web/build/index.html .setup/chromium
	mkdir -p docs/screenshots
	go test ./e2e -count=1 -run TestScreenshots -screenshots="$(CURDIR)/docs/screenshots"

# The formats follow the Go types: schemas, TypeScript types, list of rules.
generate: .setup/npm
	go run ./internal/format/generate
	cd web && npm run --silent types

bin/deepbay: $(GO_SOURCES) web/build/index.html
	go build -trimpath -ldflags "-s -w -X main.version=$(VERSION)" -o $@ ./cmd/deepbay

web/build/index.html: $(WEB_SOURCES) .setup/npm
	cd web && npm run --silent build

.setup/npm: web/package-lock.json web/.npmrc
	cd web && npm ci --no-audit --no-fund
	@mkdir -p .setup && touch $@

# The browser of the tests comes from Debian's packages.
.setup/chromium:
	@command -v chromium >/dev/null || { \
		root=$$(test "$$(id -u)" = 0 || echo sudo); \
		$$root apt-get update && \
		$$root env DEBIAN_FRONTEND=noninteractive apt-get install -y --no-install-recommends chromium; }
	@mkdir -p .setup && touch $@

clean:
	rm -rf bin .setup web/build/* web/.svelte-kit web/node_modules
