package words_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/words"
)

func TestNumber(t *testing.T) {
	for _, c := range []struct {
		v      float64
		digits int
		want   string
	}{
		{4588.3, 0, "4588"}, {23400, 0, "23\u202f400"}, {1234567.8, 1, "1\u202f234\u202f567.8"}, {-4.81, 1, "−4.8"},
		{-0.04, 1, "0.0"}, {math.NaN(), 1, "?"}, {math.Inf(1), 0, "?"},
	} {
		assert.Equal(t, c.want, words.Number(c.v, c.digits))
	}
}

func TestValue(t *testing.T) {
	for _, c := range []struct {
		f    eval.Figure
		want string
	}{
		{eval.Figure{ID: "cost", Unit: "EUR", Known: true, Value: 171450}, "€1,715"},
		{eval.Figure{ID: "cost", Unit: "EUR", Known: true, Value: 4250}, "€42.50"},
		{eval.Figure{ID: "tyre-life", Unit: "km", Known: true, Value: 4391}, "4400\u00a0km"},
		{eval.Figure{ID: "crawl-speed", Unit: "km/h", Known: true, Value: 12.93}, "12.9\u00a0km/h"},
		{eval.Figure{ID: "rake-change", Unit: "°", Known: true, Value: 0.63}, "0.6°"},
		{eval.Figure{ID: "cost", Unit: "EUR"}, "?"},
	} {
		assert.Equal(t, c.want, words.Value(c.f), c.f.ID)
	}
}

func TestDelta(t *testing.T) {
	rpm := eval.Figure{ID: "cruise-rpm", Unit: "rpm"}
	assert.Equal(t, "+427\u00a0rpm", words.Delta(rpm, 426.8))
	assert.Equal(t, "−427\u00a0rpm", words.Delta(rpm, -426.8))
	assert.Empty(t, words.Delta(rpm, 0.2), "too small to be shown")
}

func TestPlain(t *testing.T) {
	assert.Equal(t, "2.095", words.Plain(2.095, ""))
	assert.Equal(t, "2041\u00a0mm", words.Plain(2041, "mm"))
	assert.Equal(t, "€112.00", words.Plain(11200, "EUR"))
	assert.Equal(t, "?\u00a0mm", words.Plain(math.NaN(), "mm"))
}
