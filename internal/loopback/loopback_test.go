package loopback_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/loopback"
)

func TestIs(t *testing.T) {
	for address, want := range map[string]bool{
		"127.0.0.1:25": true, "127.9.9.9:25": true, "[::1]:25": true, "localhost:25": true,
		"127.0.0.1": false, "10.0.0.1:25": false, "127.0.0.1.example:25": false, "": false, ":25": false,
	} {
		assert.Equal(t, want, loopback.Is(address), address)
	}
}
