# make demo: the two commands that matter are this one and make test.
.PHONY: demo build field test unit bench soak assets assets-check generate lint screenshots

# The web framework brings a message format that nobody here speaks: an eighth of the program.
export GOFLAGS := $(GOFLAGS) -tags=nomsgpack

GO = $(wildcard *.go) book cmd core demo docs e2e field kept live mariadb planner share standin store web
MARIADB = mariadbd=mariadb-server-core mariadb-install-db=mariadb-server-core my_print_defaults=mariadb-client-core
# Chromium without windows costs a third less; where there is none, the whole one will do.
CHROMIUM = sh scripts/need.sh chromium-headless-shell=chromium-headless-shell || sh scripts/need.sh chromium=chromium

demo: build
	@exec ./bin/cuestart demo

build: field
	@sh scripts/need.sh $(MARIADB)
	@go build -ldflags="-s -w" -o bin/cuestart ./cmd/cuestart

# The core for the browser, where it has changed.
field:
	@sh scripts/field.sh

# Everything: vet, formatting, the import rule, unit, store, process and browser tests.
test: lint field
	@sh scripts/need.sh $(MARIADB) pdftotext=poppler-utils node=nodejs
	@$(CHROMIUM)
	began=$$(date +%s) && GOGC=400 go test -count=1 -vet=off -ldflags="-s -w" -timeout 40m ./e2e ./web ./... && mkdir -p var && echo $$(($$(date +%s) - began)) > var/suite_s

lint:
	@test -z "$$(gofmt -l $(GO))" || { gofmt -l $(GO); echo "run gofmt -w on these"; exit 1; }
	go vet ./...

# The quick ones, without browser and processes.
unit:
	go test ./core/... ./book/... ./store/... ./mariadb/...

# Hundreds of kills: of first starts, of upgrades from each version, and while people work.
soak: field
	@sh scripts/need.sh $(MARIADB)
	go test -count=1 -timeout 3h ./cmd/cuestart -run 'MayBeKilled|NothingAcknowledged' -v -args -start-kills 14 -work-kills 300 -from-all

bench: build
	@[ ! -f var/suite_s ] || echo "suite_s $$(cat var/suite_s) s"
	@go test -count=1 ./e2e -run TestFigures -figures $(CURDIR)/bin/cuestart -v | grep -E '^[a-z_0-9]+ [0-9.e+]+ '
	@go test ./core/compose -run '^$$' -bench Warns -benchtime 1x | awk '/compose_/ {for (i = 5; i < NF; i += 2) print $$(i+1), $$i, "%"}'

# Styles, scripts and fonts; needs Node. The result is committed.
assets:
	npm ci --silent
	sh scripts/assets.sh

assets-check: assets
	@git diff --exit-code --stat -- web/assets/dist share/fonts e2e/testdata || { echo "web/assets/dist is not what its sources make: run make assets and commit"; exit 1; }

# The typed queries of store/db from store/queries.
generate:
	CGO_ENABLED=0 go run github.com/sqlc-dev/sqlc/cmd/sqlc@v1.31.1 generate

# The pictures that are in docs/screenshots, anew, from the demo club.
screenshots: field
	@sh scripts/need.sh $(MARIADB) pdftoppm=poppler-utils
	@$(CHROMIUM)
	@mkdir -p var/shots
	go test -count=1 -timeout 40m ./e2e -shots $(CURDIR)/var/shots
	@for picture in docs/screenshots/*.png; do cp var/shots/$${picture##*/} $$picture; done; rm -r var/shots
