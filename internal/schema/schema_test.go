package schema_test

import (
	"os"
	"testing"

	"github.com/stretchr/testify/require"

	"valiantmule/internal/golden"
	"valiantmule/internal/schema"
)

// TestGoldenSchema holds the published files to what the types and tables say.
func TestGoldenSchema(t *testing.T) {
	for name, of := range map[string]schema.Document{"plan": schema.Plan, "bike": schema.Bike} {
		made, err := schema.Make(os.DirFS("../.."), of)
		require.NoError(t, err)
		golden.HeldAt(t, "../../docs/formats/valiant-mule-"+name+".schema.json", string(made))
	}
}

// TestGoldenKinds holds docs/kinds.md to the table.
func TestGoldenKinds(t *testing.T) { golden.HeldAt(t, "../../docs/kinds.md", schema.Kinds()) }
