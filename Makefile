# The commands of the project. Each installs what it lacks.
.PHONY: demo test markup firefox check bench fuzz mutate kill screenshots assets sbom

demo: ## the demonstration at MULE_ADDR, 127.0.0.1:8080
	@exec scripts/demo

test: ## every test, browser and database ones too
	@scripts/test

markup: ## the tests of the pages that need no browser
	@go test -tags markup ./internal/web/...

firefox: ## five pages in Firefox
	@scripts/firefox

check: ## gofmt, vet, staticcheck, race
	@scripts/check

bench: ## the benchmarks; BASE=file compares with an earlier run
	@scripts/bench $(BASE)

fuzz: ## each fuzz test for a while; FUZZTIME=30s
	@scripts/fuzz $(FUZZTIME)

mutate: ## the core changed by machine; PACKAGES="fuel study/tyres"
	@scripts/mutate $(PACKAGES)

kill: ## server and database killed at seeded moments; KILLS=n SEED=s
	@scripts/kill $(KILLS) $(SEED)

screenshots: ## docs/screenshots from the demo data
	@scripts/need mariadbd=mariadb-server-core my_print_defaults=mariadb-client-core chromium=chromium
	@go run ./cmd/screenshots

sbom: ## what the program is made of, with licences, in bin
	@scripts/sbom

assets: ## third_party from npm
	@scripts/assets
