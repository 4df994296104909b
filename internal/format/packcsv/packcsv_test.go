package packcsv_test

import (
	"bytes"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

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
	rows, err := packcsv.Read(b.Bytes())
	require.NoError(t, err)
	require.Len(t, rows, len(loads))
	for i, r := range rows {
		require.NoError(t, r.Err)
		assert.Equal(t, loads[i], r.Load)
	}
}

func TestByHand(t *testing.T) {
	rows, err := packcsv.Read([]byte("Thing;Weight (g);Place;Daily;Colour\nStove;450;side bags;yes;red\nAxe;1,2 kg;Top box;no;\n;300;;;\nTent;heavy;;;\nPan;400;the moon;;\nMug;90;tail;perhaps;\n"))
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
	_, err = packcsv.Read([]byte("item,volume\nx,1\n"))
	assert.ErrorContains(t, err, `"mass"`)
}

func FuzzRead(f *testing.F) {
	f.Add([]byte("item,mass,volume,where,side,when,daily,packed\nTent,3 kg,9 L,tail,,,no,yes\n"))
	f.Add([]byte("item;mass\n\"a;1"))
	f.Fuzz(func(t *testing.T, data []byte) {
		rows, err := packcsv.Read(data)
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
