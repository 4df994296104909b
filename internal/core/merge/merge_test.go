package merge_test

import (
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/merge"
)

var rows = merge.Rows{"answers": "check", "tags": merge.Each}

func of(t *testing.T, text string) (v any) {
	t.Helper()
	require.NoError(t, json.Unmarshal([]byte(text), &v))
	return v
}

// TestThree: each side's own changes are in the result, what both changed is asked, and a list
// with rows of its own is put together row by row.
func TestThree(t *testing.T) {
	was := of(t, `{"mass":"160 kg","seat":"870 mm","answers":[{"check":"a","verdict":"good"},{"check":"b","verdict":"do","cost":"10 EUR"}]}`)
	mine := of(t, `{"mass":"161 kg","seat":"860 mm","answers":[{"check":"a","verdict":"good"},{"check":"b","verdict":"done","cost":"10 EUR"},{"check":"c","verdict":"watch"}]}`)
	theirs := of(t, `{"seat":"855 mm","km":"1240 km","answers":[{"check":"d","verdict":"good"},{"check":"b","verdict":"do","cost":"12 EUR"}]}`)

	merged, list := merge.Three(was, mine, theirs, rows, nil)
	// The mass was taken out there and changed here; so was the seat changed on both sides.
	assert.Equal(t, of(t, `{"seat":"855 mm","km":"1240 km","answers":[{"check":"b","verdict":"done","cost":"12 EUR"},{"check":"c","verdict":"watch"},{"check":"d","verdict":"good"}]}`), merged)
	clashes := 0
	for _, d := range list {
		if d.Clash {
			clashes++
			assert.Contains(t, []string{"mass", "seat"}, d.Path[0])
		}
	}
	assert.Equal(t, 2, clashes)

	merged, _ = merge.Three(was, mine, theirs, rows, func(merge.Difference) bool { return true })
	assert.Equal(t, "860 mm", merged.(map[string]any)["seat"])
	assert.Equal(t, "161 kg", merged.(map[string]any)["mass"])
}

// TestTexts have no order, and each is by itself.
func TestTexts(t *testing.T) {
	was := of(t, `{"tags":["a","b"]}`)
	mine := of(t, `{"tags":["b","a","c"]}`)
	theirs := of(t, `{"tags":["b","d"]}`)
	merged, _ := merge.Three(was, mine, theirs, rows, nil)
	assert.Equal(t, of(t, `{"tags":["b","c","d"]}`), merged)
	_, list := merge.Three(was, was, of(t, `{"tags":["b","a"]}`), rows, nil)
	assert.Empty(t, list)
}

// TestRowsThatAreNotToldApart are one value: none is lost by being taken for another.
func TestRowsThatAreNotToldApart(t *testing.T) {
	was := of(t, `{"answers":[{"check":"a"}]}`)
	theirs := of(t, `{"answers":[{"check":"a"},{"check":"a","note":"twice"}]}`)
	merged, list := merge.Three(was, was, theirs, rows, nil)
	assert.Equal(t, theirs, merged)
	assert.Len(t, list, 1)
}

// random is a document of a few members and rows.
func random(r *rand.Rand) any {
	doc := map[string]any{}
	for i := range 4 {
		if r.IntN(3) > 0 {
			doc[fmt.Sprint("m", i)] = fmt.Sprint(r.IntN(3))
		}
	}
	var list []any
	for _, at := range r.Perm(4)[:r.IntN(5)] {
		list = append(list, map[string]any{"check": fmt.Sprint("c", at), "v": fmt.Sprint(r.IntN(3))})
	}
	if list != nil {
		doc["answers"] = list
	}
	if r.IntN(2) > 0 {
		doc["tags"] = []any{fmt.Sprint(r.IntN(3))}
	}
	if r.IntN(2) > 0 {
		doc["under"] = map[string]any{"x": fmt.Sprint(r.IntN(3)), "y": fmt.Sprint(r.IntN(3))}
	}
	return doc
}

// TestLaws hold for any three documents: who has changed nothing takes the other's, what both
// have is as it is, and to put the result together with theirs once more changes nothing.
func TestLaws(t *testing.T) {
	r := rand.New(rand.NewPCG(32, 1))
	for range 5000 {
		was, mine, theirs := random(r), random(r), random(r)
		same := func(want, was, mine, theirs any) {
			t.Helper()
			got, _ := merge.Three(was, mine, theirs, rows, nil)
			require.Equal(t, want, got)
		}
		same(mine, was, mine, mine)
		same(mine, was, mine, was)
		same(theirs, was, was, theirs)
		once, differ := merge.Three(was, mine, theirs, rows, nil)
		same(once, theirs, once, theirs)
		for _, d := range differ {
			require.NotEqual(t, d.Mine, d.Theirs, d.Path)
		}
	}
}
