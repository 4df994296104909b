package format_test

import (
	"bytes"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/go-json-experiment/json"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/format"
)

// TestVersionOne: exports of version 1 are read whole. Whatever a part had in its objects
// and effects is among its properties, each thing once; a reading has what it read.
func TestVersionOne(t *testing.T) {
	files, err := filepath.Glob("testdata/v1/*.json")
	require.NoError(t, err)
	require.Len(t, files, 2)
	for _, name := range files {
		data, err := os.ReadFile(name)
		require.NoError(t, err)
		p, err := format.ReadPlan(bytes.NewReader(data))
		require.NoError(t, err, name)
		assert.Equal(t, plan.Version, p.Version)
		var old plan1
		require.NoError(t, json.Unmarshal(data, &old))
		require.Len(t, p.Lines, len(old.Lines))
		for i, l := range old.Lines {
			if l.Part != nil {
				assert.Equal(t, said1(l.Part), said(t, p.Lines[i].Part), "%s of %s", p.Lines[i].Part.ID, name)
			}
		}
		if p.Bike != nil {
			for i, part := range old.Bike.Standard {
				assert.Equal(t, said1(part), said(t, &p.Bike.Standard[i]), name)
			}
		}
		require.Len(t, p.Readings, len(old.Readings))
		for i, r := range p.Readings {
			assert.True(t, r.Whole(), "reading %d of %s", i, name)
		}
		stored, aside, err := format.DecodePlan(data)
		require.NoError(t, err)
		assert.Empty(t, aside)
		assert.Equal(t, p, stored, "a plan kept as version 1 is read as an export is")
	}
}

type plan1 struct {
	Lines []struct{ Part map[string]any } `json:"lines"`
	Bike  struct {
		Standard []map[string]any `json:"standard"`
	} `json:"bike"`
	Readings []map[string]any `json:"readings"`
}

// said1 is how much a part of version 1 says.
func said1(part map[string]any) int {
	n := 0
	for key, v := range part {
		switch v := v.(type) {
		case map[string]any:
			if key != "fitment" && key != "made" {
				n += len(v)
			}
			if _, main := v["kind"]; main && key == "carrier" && part["slot"] == "fuel-tank" {
				n-- // its slot says so
			}
		case []any:
			if key == "effects" {
				n += len(v)
			}
		}
	}
	return n
}

// said is how much a part says.
func said(t *testing.T, p *parts.Part) int {
	text, err := json.Marshal(p.Has)
	require.NoError(t, err)
	var has map[string]any
	require.NoError(t, json.Unmarshal(text, &has))
	return len(has) + len(p.Effects)
}

// TestWhatWasInOneIsInTwo, part by part of hand-picked ones.
func TestWhatWasInOneIsInTwo(t *testing.T) {
	for was, is := range map[string]string{
		`"slot":"rear-tyre","tyre":{"size":"140/80-18 M/C 70R TT","kind":"knobbly","width":"141 mm","tread":"40 %"}`:                    `{"tyre_kind":"knobbly","code":"140/80-18 M/C 70R TT","width":"141 mm","tread":"40 %"}`,
		`"slot":"seat","effects":[{"figure":"seat-rise-mm","op":"add","value":-25},{"figure":"seat-hours","op":"set","value":4.5}]`:     `{"comfort":"4.5 h","seat_rise":"-25 mm"}`,
		`"slot":"rear-sprocket","effects":[{"figure":"rear-teeth","op":"set","value":47}]`:                                              `{"teeth":47}`,
		`"slot":"power-box","box":{"channels":"8","limit":"15 A"}`:                                                                      `{"channels":8,"limit":"15 A"}`,
		`"slot":"fuel-tank","carrier":{"kind":"tank","holds":"23 L","plastic":true}`:                                                    `{"holds":"23 L","plastic":true}`,
		`"slot":"fuel-cans","carrier":{"kind":"poured","holds":"1 US gal"}`:                                                             `{"fuel_kind":"poured","holds":"1 US gal"}`,
		`"slot":"headlamp","lamp":{"candela":"30000 cd","mount":"bars"},"electric":{"draw":"35 W","use":"night"}`:                       `{"lamp_mount":"bars","use":"night","candela":"30000 cd","draw":"35 W"}`,
		`"slot":"indicators","blinkers":{"front":"1.5 W"},"guard":{"width":"30 mm"}`:                                                    `{"front_draw":"1.5 W","guard_width":"30 mm"}`,
		`"slot":"battery","effects":[{"figure":"battery-ah","op":"set","value":11.2},{"figure":"cold-crank-a","op":"set","value":210}]`: `{"capacity":"11.2 Ah","cold_crank":"210 A"}`,
	} {
		one := strings.Replace(head, `"version":2`, `"version":1`, 1)
		require.NotEqual(t, head, one)
		p, err := format.ReadPlan(strings.NewReader(one + `"brief":{},"lines":[{"kind":"part","need":"needed","part":{"id":"x","name":"X",` + was + `}}],` + tail))
		require.NoError(t, err, was)
		has, err := json.Marshal(p.Lines[0].Part.Has)
		require.NoError(t, err)
		assert.JSONEq(t, is, string(has))
		assert.Empty(t, p.Lines[0].Part.Effects)
	}
}

// TestRefusedLater: a plan that was kept with numbers that nobody believes any more opens,
// names each, counts it as not said, and is exported and imported again. As a file it is
// refused at its place.
func TestRefusedLater(t *testing.T) {
	for was, c := range map[string]struct{ key, place string }{
		`"slot":"battery","has":{"capacity":"1400 Ah"}`:                          {"capacity", ".has.capacity"},
		`"slot":"stator","has":{"output":"2 W"}`:                                 {"output", ".has.output"},
		`"slot":"rear-tube","has":{"max_speed":"9000 km/h"}`:                     {"max_speed", ".has.max_speed"},
		`"slot":"flasher","has":{"made_for":"0.01 W"}`:                           {"made_for", ".has.made_for"},
		`"slot":"fuel-cans","has":{"holds":"0.001 L"}`:                           {"holds", ".has.holds"},
		`"slot":"seat","effects":[{"figure":"battery-ah","op":"set","value":9}]`: {"battery-ah", ".effects[0].figure"},
		`"slot":"seat","has":{"capacity":"9 Ah"}`:                                {"capacity", ".has.capacity"},
		`"slot":"shock","has":{"rate":"60 N/mm","second":"70 N/mm"}`:             {"knee", ".has.knee"},
		`"slot":"seat","mass":"140 kg"`:                                          {"mass", ".mass"},
	} {
		text := head + `"brief":{},"lines":[{"kind":"part","need":"needed","part":{"id":"x","name":"X",` + was + `}}],` + tail
		_, err := format.ReadPlan(strings.NewReader(text))
		require.Error(t, err, was)
		assert.True(t, strings.HasPrefix(err.Error(), "lines[0].part"+c.place), "%s: %v", was, err)

		p, aside, err := format.DecodePlan([]byte(text))
		require.NoError(t, err, was)
		if c.key == "knee" {
			require.NotEmpty(t, p.Validate(), "what lacks its other half is for its rider to complete")
			continue
		}
		require.Len(t, aside, 1, was)
		assert.Contains(t, aside[0], c.key)
		assert.Empty(t, p.Validate())
		assert.False(t, p.Lines[0].Part.Mass.Known())
		var out bytes.Buffer
		require.NoError(t, format.WritePlan(&out, p))
		again, err := format.ReadPlan(&out)
		require.NoError(t, err, was)
		assert.Equal(t, p, again)
	}
}
