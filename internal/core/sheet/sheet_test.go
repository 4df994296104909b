package sheet_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/sheet"
)

func ExampleSheet_Step() {
	double := func(x float64, working *sheet.Sheet) float64 {
		working.Step(sheet.Formula{Text: "y = 2 × x", Origin: sheet.Computed}, sheet.Value{Name: "y", Number: 2 * x}, sheet.Value{Name: "x", Number: x, Origin: sheet.Rider})
		return 2 * x
	}
	fmt.Println(double(3, nil)) // nobody looks
	working := &sheet.Sheet{}
	double(3, working)
	step := working.Steps[0]
	fmt.Println(step.Formula.Text, step.In[0].Origin, step.Out.Number, step.Out.Origin)
	// Output:
	// 6
	// y = 2 × x yours 6 computed
}

func TestANilSheetTakesNoNotes(t *testing.T) {
	var nobody *sheet.Sheet
	assert.NotPanics(t, func() {
		nobody.Note("unheard")
		nobody.Step(sheet.Formula{}, sheet.Value{})
	})
}
