package schema_test

import (
	"os"
	"testing"

	"github.com/stretchr/testify/require"

	"valiantmule/internal/golden"
	"valiantmule/internal/schema"
)

const file = "../../docs/formats/valiant-mule-plan.schema.json"

// TestGoldenSchema holds the published file to what the types and tables say.
func TestGoldenSchema(t *testing.T) {
	made, err := schema.Make(os.DirFS("../.."))
	require.NoError(t, err)
	golden.HeldAt(t, file, string(made))
}

// TestGoldenKinds holds docs/kinds.md to the table.
func TestGoldenKinds(t *testing.T) { golden.HeldAt(t, "../../docs/kinds.md", schema.Kinds()) }
