package fillcsv_test

import (
	"bytes"
	"encoding/csv"
	"os/exec"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/demo"
	"valiantmule/internal/format/fillcsv"
	"valiantmule/internal/referee"
)

func fills(t testing.TB) []logbook.Reading {
	p, err := demo.Plan()
	require.NoError(t, err)
	return p.ReadingsOf(logbook.FillReading)
}

// TestRoundTrip: what is written is read back as the same fills. How the bike was
// ridden is more than a column says, so of it only the name comes back.
func TestRoundTrip(t *testing.T) {
	list := fills(t)
	var b bytes.Buffer
	require.NoError(t, fillcsv.Write(&b, list))
	rows, err := fillcsv.Read(b.Bytes(), "holt-650")
	require.NoError(t, err)
	require.Len(t, rows, len(list))
	for i, row := range rows {
		require.NoError(t, row.Err)
		want := list[i]
		fill := *want.Fill()
		fill.As = logbook.Ridden{Name: fill.As.Name}
		want.Read = &fill
		assert.Equal(t, want.ID, row.Reading.ID)
		assert.Equal(t, want.Fill().Litres.In("L"), row.Reading.Fill().Litres.In("L"))
		assert.Equal(t, want.Fill().Odometer.In("km"), row.Reading.Fill().Odometer.In("km"))
		assert.Equal(t, want.Fill().Partial, row.Reading.Fill().Partial)
		assert.Equal(t, want.Fill().As, row.Reading.Fill().As)
		require.Len(t, row.Reading.Fill().Ground, len(want.Fill().Ground))
	}
}

// TestDialects: as spreadsheets of other countries save it.
func TestDialects(t *testing.T) {
	for name, text := range map[string]string{
		"decimal comma": "Date;Litres [L];Odometer [km];Full\n12.9.2026;10,4;21480;yes\n",
		"gallons":       "date,volume (US gal),odo (mi),full tank\n2026-09-12,2.7474,13347,y\n",
		"a mark, tabs":  "\ufeffdate\tlitres\tdistance\tcolour\n2026/09/12\t10.4\t230\tred\n",
	} {
		rows, err := fillcsv.Read([]byte(text), "own")
		require.NoError(t, err, name)
		require.Len(t, rows, 1, name)
		require.NoError(t, rows[0].Err, name)
		r := rows[0].Reading
		assert.Equal(t, "2026-09-12", r.On, name)
		assert.InDelta(t, 10.4, r.Fill().Litres.In("L"), 1e-3, name)
		assert.Len(t, r.ID, 26, name)
		again, _ := fillcsv.Read([]byte(text), "own")
		assert.Equal(t, r.ID, again[0].Reading.ID, "%s: read again it is the same fill", name)
	}
}

// TestBadRows are named by their line and keep none of the others from being read.
func TestBadRows(t *testing.T) {
	rows, err := fillcsv.Read([]byte("date,litres,odometer,full,sand\n2026-09-12,10.4,21480,yes,\nsoon,9,21700,yes,\n2026-09-30,-3,21900,yes,\n"+
		"2026-10-01,9,,yes,\n2026-10-02,9,22000,perhaps,\n2026-10-03,9,22200,no,40\n2026-10-04,9,22400,yes,100,extra\n2026-10-05,9.5,22600,yes,100\n"), "own")
	require.NoError(t, err)
	var bad []int
	for _, r := range rows {
		if r.Err != nil {
			bad = append(bad, r.Line)
		}
	}
	assert.Equal(t, []int{3, 4, 5, 6, 7, 8}, bad)
	assert.ErrorContains(t, rows[1].Err, "date")
	assert.ErrorContains(t, rows[2].Err, "0–100 L")
	assert.ErrorContains(t, rows[3].Err, "odometer")
	assert.ErrorContains(t, rows[5].Err, "100 %")
}

func TestRefused(t *testing.T) {
	for text, says := range map[string]string{
		"":                                "empty",
		"litres,odometer\n1,2\n":          `"date"`,
		"date,odometer\n":                 `"litres"`,
		"date,litres\n2026-09-12,9\n":     "neither",
		"date,litres [kg],odometer\n":     "kg",
		"date,date,litres,trip\n":         "twice",
		"date,litres,trip\n":              "no row",
		"date,litres,trip,sand [km]\n1\n": "km",
	} {
		_, err := fillcsv.Read([]byte(text), "own")
		assert.ErrorContains(t, err, says, "%q", text)
	}
}

// TestPython's csv module reads what is written, quotes and all.
func TestPython(t *testing.T) {
	list := fills(t)
	list[1].Note = "half, \"as always\"\nand rain"
	var b bytes.Buffer
	require.NoError(t, fillcsv.Write(&b, list))
	python := exec.Command(referee.Program(t, "/usr/bin/python3", "python3"), "-c", `
import csv, sys
rows = list(csv.DictReader(sys.stdin))
print(len(rows), round(sum(float(r["litres [L]"]) for r in rows), 3), repr(rows[1]["note"]))`)
	python.Stdin = &b
	out, err := python.Output()
	require.NoError(t, err)
	assert.Equal(t, `8 69.9 'half, "as always"\nand rain'`, strings.TrimSpace(string(out)))
}

func FuzzRead(f *testing.F) {
	var b bytes.Buffer
	require.NoError(f, fillcsv.Write(&b, fills(f)))
	f.Add(b.Bytes())
	f.Add([]byte("date;litres;trip\n1.1.2026;1,5;30\n\"x"))
	f.Add([]byte("date,litres,odometer,by\n2026-01-01,1e309,-0,gps"))
	f.Fuzz(func(t *testing.T, data []byte) {
		rows, err := fillcsv.Read(data, "own")
		if err != nil {
			assert.NotEmpty(t, err.Error())
			return
		}
		for _, r := range rows {
			if r.Err == nil {
				assert.Empty(t, r.Reading.Validate())
			}
			assert.False(t, strings.Contains(r.Reading.ID, " ") && r.Err == nil)
		}
	})
}

// TestForeignIDs: another program's id becomes one of ours, always the same; a row that
// says something else under it is another fill.
func TestForeignIDs(t *testing.T) {
	read := func(file string) []fillcsv.Row {
		rows, err := fillcsv.Read([]byte("date,litres [L],odometer [km],id\n"+file), "holt-650")
		require.NoError(t, err)
		return rows
	}
	rows := read("2026-05-01,11,1000,17\n2026-05-09,12,1200,17\n2026-05-20,12,1400,abc-def\n")
	ids := map[string]bool{}
	for _, row := range rows {
		require.NoError(t, row.Err)
		assert.True(t, entry.ValidID(row.Reading.ID), row.Reading.ID)
		ids[row.Reading.ID] = true
	}
	assert.Len(t, ids, 3)
	assert.Equal(t, rows[0].Reading.ID, read("2026-05-01,11,1000,17\n")[0].Reading.ID, "read again it is the same fill")
}

// TestFormulas: a spreadsheet that opens the file computes none of its cells, and all come
// back as they were.
func TestFormulas(t *testing.T) {
	list := fills(t)[:1]
	for _, note := range []string{"=1+1", "+cmd|' /C calc'!A0", "-2", "@SUM(A1)", "'=quoted", "''=twice", "'quoted", "plain"} {
		list[0].Note = note
		var b bytes.Buffer
		require.NoError(t, fillcsv.Write(&b, list))
		cells, err := csv.NewReader(bytes.NewReader(b.Bytes())).ReadAll()
		require.NoError(t, err)
		for _, cell := range cells[1] {
			assert.False(t, cell != "" && strings.ContainsAny(cell[:1], "=+-@"), cell)
		}
		rows, err := fillcsv.Read(b.Bytes(), "holt-650")
		require.NoError(t, err)
		assert.Equal(t, note, rows[0].Reading.Note)
	}
}
