module valiantmule

go 1.26.0

require (
	github.com/bojanz/currency v1.4.2
	github.com/go-json-experiment/json v1.27.2
)

require (
	github.com/cockroachdb/apd/v3 v3.2.1 // indirect
	github.com/lib/pq v1.10.9 // indirect
)
