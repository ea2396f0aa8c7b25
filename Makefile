# Thin: each target calls a script in scripts/, which says what it does and fails with a cure.
unexport PYTHONDONTWRITEBYTECODE
.DEFAULT_GOAL := help
.PHONY: help demo serve backup restore test bench load faults scale fuzz mutants fit prove docs shots types

help: ## this list
	@grep -hE '^[a-z]+:.*##' $(MAKEFILE_LIST) | sed -E 's/^([a-z]+):.*## */  make \1\t/' | expand -t 16

demo: ## set up what is missing, start the app with demo data, print its address (FRESH=1 begins anew, PORT=8000)
	@FRESH="$(FRESH)" PORT="$(PORT)" scripts/demo

serve: ## set up what is missing, start the app for a club, in a database of its own (PORT=8000, YOISHO_ADDRESS=https://…)
	@PORT="$(PORT)" scripts/serve

backup: ## write everything of the club into one file (FILE=backup/….dump)
	@FILE="$(FILE)" scripts/backup

restore: ## put the club back as it was in a back-up (FILE=backup/….dump); what is here is backed up first
	@FILE="$(FILE)" scripts/restore

test: ## set up what is missing, run every check and test (ONLY="tests/core -k timeline" for some of the Python tests)
	@ONLY="$(ONLY)" scripts/test

bench: ## measure the engine, the API and the front end's size
	@scripts/bench

load: ## many screens that follow a run, then many coaches who edit, against a server of its own (FOLLOWERS=500, COACHES="40 100")
	@FOLLOWERS="$(or $(FOLLOWERS),500)" COACHES="$(or $(COACHES),40 100)" scripts/load

faults: ## kill what a hall consists of at random while it is written to, fill its disks, back a year up and put it back (KILLS=200, ONLY="kills disks year")
	@KILLS="$(or $(KILLS),200)" SEED="$(or $(SEED),1)" ONLY="$(ONLY)" scripts/faults

scale: ## two servers and two workers on one database behind haproxy: everything works whichever answers, and with one killed
	@scripts/scale

fuzz: ## throw text at both readers and requests at the API for a minute each (SECONDS=60, ONLY="readers api solvers"), 300 random camps and classes at their solvers
	@SECONDS_LONG="$(SECONDS)" ONLY="$(ONLY)" SEED="$(SEED)" scripts/fuzz

mutants: ## turn rules of the core round and see whether a test notices (COUNT=200, ONLY=strikes,runs, SEED=1, AGAIN=file, WITHIN=12)
	@COUNT="$(COUNT)" ONLY="$(ONLY)" SEED="$(SEED)" AGAIN="$(AGAIN)" WITHIN="$(WITHIN)" scripts/mutants

fit: ## search the engine's parameters against the published studies (GENERATIONS=360, FROM=anew)
	@GENERATIONS="$(GENERATIONS)" FROM="$(FROM)" scripts/fit

prove: ## learn from simulated people whose capacities are known, and write down how near it comes (PEOPLE=200)
	@PEOPLE="$(PEOPLE)" scripts/prove

docs: ## write docs/method.md and docs/session.schema.json anew from the software itself
	@scripts/docs

shots: ## take the pictures of docs/screenshots anew from fresh demo data
	@scripts/shots

types: ## write the OpenAPI document and the front end's types anew
	@scripts/types
