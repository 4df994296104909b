package packcsv_test

import (
	"bytes"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/demo"
	"valiantmule/internal/format/packcsv"
)

func TestRoundTrip(t *testing.T) {
	p, err := demo.Plan()
	require.NoError(t, err)
	loads := p.Loadouts[1].Loads
	require.NotEmpty(t, loads)
	var b bytes.Buffer
	require.NoError(t, packcsv.Write(&b, loads))
	rows, err := packcsv.Read(b.Bytes(), nil)
	require.NoError(t, err)
	require.Len(t, rows, len(loads))
	for i, r := range rows {
		require.NoError(t, r.Err)
		assert.Equal(t, loads[i], r.Load)
	}
}

func TestByHand(t *testing.T) {
	rows, err := packcsv.Read([]byte("Thing;Weight (g);Place;Daily;Colour\nStove;450;side bags;yes;red\nAxe;1,2 kg;Top box;no;\n;300;;;\nTent;heavy;;;\nPan;400;the moon;;\nMug;90;tail;perhaps;\n"), nil)
	require.NoError(t, err)
	require.Len(t, rows, 6)
	require.NoError(t, rows[0].Err)
	assert.InDelta(t, 0.45, rows[0].Load.Mass.In("kg"), 1e-9)
	assert.Equal(t, parts.SideBags, rows[0].Load.Bag)
	assert.True(t, rows[0].Load.Daily)
	require.NoError(t, rows[1].Err)
	assert.Equal(t, parts.TopBox, rows[1].Load.Bag)
	assert.Equal(t, load.TopBox, rows[1].Load.Place)
	for i, says := range []string{"item", "mass", "where", "daily"} {
		assert.ErrorContains(t, rows[i+2].Err, says)
	}
	_, err = packcsv.Read([]byte("item,volume\nx,1\n"), nil)
	assert.ErrorContains(t, err, `"mass"`)
}

func FuzzRead(f *testing.F) {
	f.Add([]byte("item,mass,volume,where,side,when,daily,packed\nTent,3 kg,9 L,tail,,,no,yes\n"))
	f.Add([]byte("item;mass\n\"a;1"))
	f.Fuzz(func(t *testing.T, data []byte) {
		rows, err := packcsv.Read(data, nil)
		if err != nil {
			assert.NotEmpty(t, err.Error())
			return
		}
		for _, r := range rows {
			if r.Err == nil {
				assert.NotEmpty(t, r.Load.Name)
				assert.NoError(t, r.Load.Check())
			}
		}
	})
}

// TestOwnNames: a bag is named as its rider calls it, or by a part of that which no other has.
func TestOwnNames(t *testing.T) {
	bags := packcsv.Bags{"Yellow dry bag": parts.TailBag, "Old army panniers": parts.SideBags, "Left yellow tube": parts.ToolTube}
	rows, err := packcsv.Read([]byte("item,mass,where\nTent,3,Yellow dry bag\nPan,1,army\nJack,1,yellow\n"), bags)
	require.NoError(t, err)
	assert.Equal(t, parts.TailBag, rows[0].Load.Bag)
	assert.Equal(t, parts.SideBags, rows[1].Load.Bag)
	assert.ErrorContains(t, rows[2].Err, "where", "two have it in their names")
}

// TestLines as people write them.
func TestLines(t *testing.T) {
	enter := func(into entry.Entry, text, metric string) error { return into.Enter(text, metric) }
	text := "Dry bag:\n- Tent 3.2 kg 9 L\n* Stove, 450 g\nPan (1,1 kg)\n\nTools:\n2 lb 3 oz hammer\nTube\t0.9\t2\nWater 2 L\nSpanner 17 mm\n3 kg\n"
	rows, err := packcsv.Lines(text, packcsv.Bags{"Dry bag, yellow": parts.TailBag}, enter)
	require.NoError(t, err)
	type thing struct {
		name  string
		kg, l float64
		bag   parts.Slot
	}
	want := []thing{{"Tent", 3.2, 9, parts.TailBag}, {"Stove", 0.45, 0, parts.TailBag}, {"Pan", 1.1, 0, parts.TailBag}, {}, {"hammer", 0.992233, 0, ""}, {"Tube", 0.9, 2, ""}, {"Water", 0, 2, ""}, {"Spanner 17 mm", 0, 0, ""}, {}}
	require.Len(t, rows, len(want))
	for i, w := range want {
		if w.name == "" {
			assert.Error(t, rows[i].Err, rows[i].Text)
			continue
		}
		l := rows[i].Load
		require.NoError(t, rows[i].Err, rows[i].Text)
		assert.Equal(t, w.name, l.Name)
		assert.Equal(t, w.kg > 0, l.Mass.Known(), w.name)
		if w.kg > 0 {
			assert.InDelta(t, w.kg, l.Mass.In("kg"), 1e-5, w.name) // 2 lb 3 oz: GNU units
		}
		assert.Equal(t, w.l > 0, l.Volume.Known(), w.name)
		assert.Equal(t, w.bag, l.Bag, w.name)
	}
	assert.True(t, packcsv.IsTable([]byte("What;mass\n")))
	assert.False(t, packcsv.IsTable([]byte("Tent; 3 kg\n")))
	_, err = packcsv.Lines(" \n", nil, enter)
	assert.Error(t, err)
}
