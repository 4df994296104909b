package pack_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/pack"
	"valiantmule/internal/referee"
)

// bags of a bike: two sides, a roll behind, one on the tank.
func bags(random *rand.Rand) []pack.Bag {
	size := func(base float64) float64 { return base * (0.6 + 0.8*random.Float64()) }
	return []pack.Bag{
		{CarriesKg: size(8), HoldsL: size(25), XMM: -30, ZMM: 730, Side: -1},
		{CarriesKg: size(8), HoldsL: size(25), XMM: -30, ZMM: 730, Side: 1},
		{CarriesKg: size(9), HoldsL: size(40), XMM: -180, ZMM: 950},
		{CarriesKg: size(5), HoldsL: size(15), XMM: 830, ZMM: 1080, Handy: true},
	}
}

func things(random *rand.Rand, n int) []pack.Item {
	items := make([]pack.Item, n)
	for i := range items {
		items[i] = pack.Item{MassKg: math.Round(30*random.Float64()+1) / 10, Litres: math.Round(60*random.Float64()+2) / 10, Daily: random.IntN(3) == 0, In: random.IntN(5) - 1}
	}
	return items
}

// model is the same question as a mixed-integer program for glpsol.
func model(items []pack.Item, bags []pack.Bag) string {
	var b strings.Builder
	cost := func(i, j int) float64 { // what one item costs in one bag, worked out apart from the package
		c := items[i].MassKg * (bags[j].ZMM + math.Max(0, -bags[j].XMM)) / 1000
		if items[i].Daily && !bags[j].Handy {
			c += 0.15 * items[i].MassKg
		}
		if items[i].In >= 0 && items[i].In != j {
			c += 0.05
		}
		return c
	}
	b.WriteString("Minimize\n obj: 0.5 u")
	for i := range items {
		for j := range bags {
			fmt.Fprintf(&b, " + %.9f x%d_%d\n", cost(i, j), i, j)
		}
	}
	b.WriteString("\nSubject To\n")
	for i := range items {
		for j := range bags {
			fmt.Fprintf(&b, " + x%d_%d", i, j)
		}
		b.WriteString(" = 1\n")
	}
	row := func(weight func(i, j int) float64, tail string) {
		for i := range items {
			for j := range bags {
				if w := weight(i, j); w != 0 {
					fmt.Fprintf(&b, " + %.9f x%d_%d\n", w, i, j)
				}
			}
		}
		b.WriteString(tail + "\n")
	}
	for k, bag := range bags {
		row(func(i, j int) float64 { return pick(j == k, items[i].MassKg) }, fmt.Sprintf(" <= %.9f", bag.CarriesKg))
		row(func(i, j int) float64 { return pick(j == k, items[i].Litres) }, fmt.Sprintf(" <= %.9f", bag.HoldsL))
	}
	row(func(i, j int) float64 { return items[i].MassKg * float64(bags[j].Side) }, " - u <= 0")
	row(func(i, j int) float64 { return -items[i].MassKg * float64(bags[j].Side) }, " - u <= 0")
	b.WriteString("Binary\n")
	for i := range items {
		for j := range bags {
			fmt.Fprintf(&b, " x%d_%d", i, j)
		}
		b.WriteString("\n")
	}
	b.WriteString("End\n")
	return strings.ReplaceAll(b.String(), "+ -", "- ")
}

func pick(yes bool, v float64) float64 {
	if yes {
		return v
	}
	return 0
}

// TestAgainstGlpsol: hundreds of random packings cost what GNU's glpsol finds to be
// the least; where it finds none, neither does this. How long both took is told.
func TestAgainstGlpsol(t *testing.T) {
	random := rand.New(rand.NewPCG(7, 7))
	folder := t.TempDir()
	var own, theirs time.Duration
	solved := 0
	solver := referee.Program(t, "glpsol", "glpk-utils")
	for n := range 240 {
		items, places := things(random, 4+n%9), bags(random)
		start := time.Now()
		p := pack.Pack(items, places)
		own += time.Since(start)
		path := filepath.Join(folder, "pack.lp")
		require.NoError(t, os.WriteFile(path, []byte(model(items, places)), 0o600))
		answer := filepath.Join(folder, "pack.out")
		start = time.Now()
		out, err := exec.Command(solver, "--lp", path, "-o", answer).CombinedOutput()
		theirs += time.Since(start)
		require.NoError(t, err, string(out))
		text, err := os.ReadFile(answer)
		require.NoError(t, err)
		if !strings.Contains(string(text), "INTEGER OPTIMAL") {
			assert.False(t, p.OK, "glpsol finds none either")
			continue
		}
		m := regexp.MustCompile(`Objective:\s+obj = ([0-9.e+-]+)`).FindStringSubmatch(string(text))
		require.NotNil(t, m)
		want, err := strconv.ParseFloat(m[1], 64)
		require.NoError(t, err)
		require.True(t, p.OK)
		assert.InDelta(t, want, p.Cost, 1e-6*math.Max(1, want), "%v %v", items, places)
		assert.InDelta(t, p.Cost, pack.Cost(items, places, p.Into), 1e-9)
		assert.True(t, pack.Fits(items, places, p.Into))
		assert.Zero(t, p.Gap)
		solved++
	}
	assert.Greater(t, solved, 100)
	t.Logf("%d packings: %v here, %v by glpsol with its start each time: %.0f times", solved, own, theirs, float64(theirs)/float64(own))
}

// leftModel is how little has to stay out, as a mixed-integer program: 1000 a kilogram and 1 a
// thing.
func leftModel(items []pack.Item, bags []pack.Bag) string {
	var b strings.Builder
	b.WriteString("Minimize\n obj: ")
	for i, it := range items {
		fmt.Fprintf(&b, " + %.9f y%d\n", 1000*it.MassKg+1, i)
	}
	b.WriteString("Subject To\n")
	for i := range items {
		for j := range bags {
			fmt.Fprintf(&b, " + x%d_%d", i, j)
		}
		fmt.Fprintf(&b, " + y%d = 1\n", i)
	}
	for j, bag := range bags {
		for i, it := range items {
			fmt.Fprintf(&b, " + %.9f x%d_%d", it.MassKg, i, j)
		}
		fmt.Fprintf(&b, " <= %.9f\n", bag.CarriesKg)
		for i, it := range items {
			fmt.Fprintf(&b, " + %.9f x%d_%d", it.Litres, i, j)
		}
		fmt.Fprintf(&b, " <= %.9f\n", bag.HoldsL)
	}
	b.WriteString("Binary\n")
	for i := range items {
		for j := range bags {
			fmt.Fprintf(&b, " x%d_%d", i, j)
		}
		fmt.Fprintf(&b, " y%d\n", i)
	}
	return b.String() + "End\n"
}

// TestWhatStaysOut is as little as glpsol finds, by mass, and the rest breaks no limit.
func TestWhatStaysOut(t *testing.T) {
	random := rand.New(rand.NewPCG(3, 5))
	folder := t.TempDir()
	solver := referee.Program(t, "glpsol", "glpk-utils")
	for n := range 40 {
		items, places := things(random, 6+n%7), bags(random)
		for i := range items { // more than goes in
			items[i].MassKg, items[i].Litres = 3*items[i].MassKg, 3*items[i].Litres
		}
		p := pack.InTurn(items, places, len(items))
		require.True(t, p.OK)
		require.True(t, pack.Fits(items, places, p.Into))
		left := 0.0
		for i, b := range p.Into {
			if b < 0 {
				left += 1000*items[i].MassKg + 1
			}
		}
		path, answer := filepath.Join(folder, "left.lp"), filepath.Join(folder, "left.out")
		require.NoError(t, os.WriteFile(path, []byte(leftModel(items, places)), 0o600))
		out, err := exec.Command(solver, "--lp", path, "-o", answer).CombinedOutput()
		require.NoError(t, err, string(out))
		text, err := os.ReadFile(answer)
		require.NoError(t, err)
		want, err := strconv.ParseFloat(regexp.MustCompile(`Objective:\s+obj = ([0-9.e+-]+)`).FindStringSubmatch(string(text))[1], 64)
		require.NoError(t, err)
		assert.InDelta(t, want, left, 1e-6*max(1, want), "%v %v", items, places)
	}
}

// manyThings are 120 small ones for four big bags.
func manyThings() ([]pack.Item, []pack.Bag) {
	random := rand.New(rand.NewPCG(1, 9))
	items := things(random, 120)
	for i := range items {
		items[i].MassKg /= 6
		items[i].Litres /= 6
	}
	places := bags(random)
	for i := range places {
		places[i].CarriesKg, places[i].HoldsL = 16, 60
	}
	return items, places
}

// TestManyThings are answered with the gap that may be left, and never over a limit.
func TestManyThings(t *testing.T) {
	items, places := manyThings()
	p := pack.Pack(items, places)
	require.True(t, p.OK)
	assert.True(t, pack.Fits(items, places, p.Into))
	assert.InDelta(t, p.Cost, pack.Cost(items, places, p.Into), 1e-9)
	assert.Less(t, p.Gap, 0.2*p.Cost)
}

func TestWishes(t *testing.T) {
	places := []pack.Bag{
		{CarriesKg: 10, HoldsL: 30, XMM: -30, ZMM: 700, Side: -1}, {CarriesKg: 10, HoldsL: 30, XMM: -30, ZMM: 700, Side: 1},
		{CarriesKg: 10, HoldsL: 30, XMM: -300, ZMM: 1100},
	}
	p := pack.Pack([]pack.Item{{MassKg: 4, Litres: 5, In: -1}, {MassKg: 4, Litres: 5, In: -1}}, places)
	assert.NotEqual(t, p.Into[0], p.Into[1], "one a side")
	assert.NotContains(t, p.Into, 2, "low, not high and behind")
	kept := pack.Pack([]pack.Item{{MassKg: 4, Litres: 5, In: 1}, {MassKg: 4, Litres: 5, In: 0}}, places)
	assert.Equal(t, []int{1, 0}, kept.Into, "what lies as well as it can stays: nothing is swapped for its mirror image")
	none := pack.Pack([]pack.Item{{MassKg: 40, Litres: 5, In: -1}}, places)
	assert.False(t, none.OK)
	assert.Equal(t, []int{-1}, none.Into)
}

func BenchmarkHundredTwenty(b *testing.B) {
	items, places := manyThings()
	for b.Loop() {
		pack.Pack(items, places)
	}
}
