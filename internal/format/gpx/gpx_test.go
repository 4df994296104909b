package gpx_test

import (
	"bytes"
	"fmt"
	"io"
	"math"
	"os"
	"os/exec"
	"path/filepath"
	"runtime"
	"strings"
	"testing"
	"testing/iotest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/text/encoding/charmap"
	"golang.org/x/text/encoding/unicode"

	"valiantmule/internal/core/track"
	"valiantmule/internal/demo"
	"valiantmule/internal/format/gpx"
	"valiantmule/internal/referee"
)

const small = `<gpx version="1.1" creator="x" xmlns="http://www.topografix.com/GPX/1/1" xmlns:e="urn:else">
<wpt lat="-27.1" lon="-18.2"><ele>12</ele><name>Quay &amp; café</name><desc><![CDATA[card <day> & night]]></desc><sym>Fuel</sym>
  <extensions><e:wpt lat="1" lon="2"/><name>not this one</name></extensions></wpt>
<rte><name>Plan</name><rtept lat="-27" lon="-18"/><rtept lat="-27.1" lon="-18.1"><ele>5.5</ele></rtept></rte>
<trk><name>Day 1</name><trkseg><trkpt lat="-27" lon="-18"><ele>4</ele><time>2026-05-01T08:00:00Z</time></trkpt><trkpt lat="-27.01" lon="-18"/></trkseg>
 <trkseg><trkpt lat="-27.02" lon="-18"><ele></ele></trkpt></trkseg></trk>
<trk><name>Empty</name><trkseg/></trk></gpx>`

func TestRead(t *testing.T) {
	f, err := gpx.Read(strings.NewReader(small))
	require.NoError(t, err)
	require.Len(t, f.Tracks, 1, "an empty track is none")
	assert.Equal(t, "Day 1", f.Tracks[0].Name)
	assert.Len(t, f.Tracks[0].Segments, 2)
	assert.Equal(t, 3, f.Tracks[0].Points())
	assert.InDelta(t, 4, f.Tracks[0].Segments[0][0].EleM, 0)
	assert.True(t, math.IsNaN(f.Tracks[0].Segments[0][1].EleM), "a missing height is missing")
	require.Len(t, f.Routes, 1)
	assert.InDelta(t, 5.5, f.Routes[0].Segments[0][1].EleM, 0)
	require.Len(t, f.Waypoints, 1)
	mark := f.Waypoints[0]
	assert.Equal(t, "Quay & café", mark.Name)
	assert.Equal(t, "card <day> & night", mark.Note)
	assert.Equal(t, "Fuel", mark.Kind)
	assert.Equal(t, f.Tracks, f.Ways())
	f.Tracks = nil
	assert.Equal(t, f.Routes, f.Ways(), "routes count where there is no track")
}

// TestDialects: the same file as 1.0, without a namespace, with a prefix, and in
// other encodings reads the same.
func TestDialects(t *testing.T) {
	want, err := gpx.Read(strings.NewReader(small))
	require.NoError(t, err)
	old := strings.ReplaceAll(strings.Replace(small, `version="1.1"`, `version="1.0"`, 1), "GPX/1/1", "GPX/1/0")
	prefixed := strings.NewReplacer("<wpt", "<g:wpt", "</wpt", "</g:wpt", "<trk", "<g:trk", "</trk", "</g:trk", "<rte", "<g:rte", "</rte", "</g:rte",
		"<name", "<g:name", "</name", "</g:name", "<ele", "<g:ele", "</ele", "</g:ele", "<desc", "<g:desc", "</desc", "</g:desc", "<sym", "<g:sym", "</sym", "</g:sym",
		"<extensions", "<g:extensions", "</extensions", "</g:extensions", "<gpx", "<g:gpx", "</gpx", "</g:gpx", "<time", "<g:time", "</time", "</g:time", `xmlns="`, `xmlns:g="`).Replace(small)
	latin, err := charmap.ISO8859_1.NewEncoder().String(`<?xml version="1.0" encoding="ISO-8859-1"?>` + small)
	require.NoError(t, err)
	wide, err := unicode.UTF16(unicode.LittleEndian, unicode.UseBOM).NewEncoder().String(`<?xml version="1.0" encoding="UTF-16"?>` + small)
	require.NoError(t, err)
	for name, text := range map[string]string{
		"1.0": old, "no namespace": strings.Replace(small, `xmlns="http://www.topografix.com/GPX/1/1" `, "", 1),
		"prefix": prefixed, "latin 1": latin, "utf-16": wide, "with a mark": "\ufeff" + small,
	} {
		got, err := gpx.Read(strings.NewReader(text))
		require.NoError(t, err, name)
		assert.Equal(t, fmt.Sprint(want), fmt.Sprint(got), name) // NaN heights are not equal to themselves
	}
}

func TestRefused(t *testing.T) {
	point := func(attrs string) string {
		return "<gpx version=\"1.1\">\n<trk><trkseg>\n<trkpt " + attrs + "/></trkseg></trk></gpx>"
	}
	for name, c := range map[string]struct{ text, says string }{
		"a document type":     {`<!DOCTYPE gpx [<!ENTITY a "b">]><gpx version="1.1"><wpt lat="1" lon="2"><name>&a;</name></wpt></gpx>`, "document type"},
		"an entity":           {`<gpx version="1.1"><wpt lat="1" lon="2"><name>&lol;</name></wpt></gpx>`, "lol"},
		"another version":     {`<gpx version="2.0"></gpx>`, "2.0"},
		"something else":      {`<kml></kml>`, "kml"},
		"another namespace":   {`<gpx version="1.1" xmlns="urn:other"></gpx>`, "not gpx"},
		"nothing":             {"  ", "no gpx"},
		"no position":         {point(`lat="5"`), "line 3"},
		"off the earth":       {point(`lat="95" lon="1"`), "−90…90"},
		"not a number":        {point(`lat="north" lon="1"`), "north"},
		"cut off":             {small[:600], "line"},
		"an unknown encoding": {`<?xml version="1.0" encoding="x-nobody"?><gpx version="1.1"/>`, "x-nobody"},
		"too deep":            {`<gpx version="1.1">` + strings.Repeat("<a>", 500), "deep"},
	} {
		_, err := gpx.Read(strings.NewReader(c.text))
		if assert.Error(t, err, name) {
			assert.Contains(t, err.Error(), c.says, name)
		}
	}
}

// written is the demo's tour as a file.
func written(t testing.TB, stepM float64) (gpx.File, []byte) {
	parts, marks := demo.Island(stepM)
	f := gpx.File{Tracks: parts, Waypoints: marks}
	var b bytes.Buffer
	require.NoError(t, gpx.Write(&b, f))
	return f, b.Bytes()
}

func TestRoundTrip(t *testing.T) {
	f, text := written(t, 400)
	f.Routes = []track.Part{{Name: "Short <one>", Segments: [][]track.Point{{f.Tracks[0].Segments[0][0], f.Tracks[0].Segments[0][9]}}}}
	var b bytes.Buffer
	require.NoError(t, gpx.Write(&b, f))
	back, err := gpx.Read(&b)
	require.NoError(t, err)
	require.Len(t, back.Waypoints, len(f.Waypoints))
	for i, m := range f.Waypoints {
		got := back.Waypoints[i]
		assert.Equal(t, []string{m.Name, m.Note, m.Kind}, []string{got.Name, got.Note, got.Kind})
		assert.InDelta(t, m.Lon, got.Lon, 1e-7)
	}
	assert.Equal(t, "Short <one>", back.Routes[0].Name)
	require.Equal(t, f.Tracks[0].Points(), back.Tracks[0].Points())
	for i, s := range f.Tracks[0].Segments {
		for j, p := range s {
			require.InDelta(t, p.Lat, back.Tracks[0].Segments[i][j].Lat, 1e-7)
			require.InDelta(t, p.EleM, back.Tracks[0].Segments[i][j].EleM, 0.051)
		}
	}
	assert.Contains(t, string(text), "</gpx>")
}

// TestGpsbabel reads what is written here without a warning, and what it writes in
// either version reads the same here. Debian's gpsbabel is the judge.
func TestGpsbabel(t *testing.T) {
	f, text := written(t, 300)
	path := filepath.Join(t.TempDir(), "tour.gpx")
	require.NoError(t, os.WriteFile(path, text, 0o600))
	for _, version := range []string{"1.0", "1.1"} {
		var out, warnings bytes.Buffer
		babel := exec.Command(referee.Program(t, "gpsbabel", "gpsbabel"), "-i", "gpx", "-f", path, "-o", "gpx,gpxver="+version, "-F", "-")
		babel.Stdout, babel.Stderr = &out, &warnings
		require.NoError(t, babel.Run(), warnings.String())
		assert.Empty(t, warnings.String())
		back, err := gpx.Read(&out)
		require.NoError(t, err)
		require.Len(t, back.Tracks, 1)
		assert.Equal(t, f.Tracks[0].Points(), back.Tracks[0].Points())
		assert.InDelta(t, track.Measure(track.Join(f.Tracks).Points).LengthKm(), track.Measure(track.Join(back.Tracks).Points).LengthKm(), 1e-3)
		require.Len(t, back.Waypoints, len(f.Waypoints))
		for i := range f.Waypoints {
			assert.Equal(t, f.Waypoints[i].Name, back.Waypoints[i].Name)
			if f.Waypoints[i].Note != "" { // it repeats the name where there is none
				assert.Equal(t, f.Waypoints[i].Note, back.Waypoints[i].Note)
			}
		}
	}
}

// TestGpxpy: Debian's python3-gpxpy finds the same points, length and climb.
func TestGpxpy(t *testing.T) {
	f, text := written(t, 300)
	const script = `
import sys, gpxpy
g = gpxpy.parse(sys.stdin)
print(len(g.waypoints), len(g.tracks), sum(len(s.points) for t in g.tracks for s in t.segments), g.tracks[0].name)
print(g.to_xml(version="1.0"))`
	python := exec.Command(referee.Module(t, "gpxpy", "python3-gpxpy"), "-c", script)
	python.Stdin = bytes.NewReader(text)
	out, err := python.Output()
	require.NoError(t, err, "python3-gpxpy of Debian")
	head, rest, _ := strings.Cut(string(out), "\n")
	assert.Equal(t, fmt.Sprintf("%d 1 %d %s", len(f.Waypoints), f.Tracks[0].Points(), f.Tracks[0].Name), head)
	back, err := gpx.Read(strings.NewReader(rest))
	require.NoError(t, err)
	assert.Equal(t, f.Tracks[0].Points(), back.Tracks[0].Points())
}

// TestHundredThousand reads a long file within the memory that is promised for it;
// its time is the benchmark's.
func TestHundredThousand(t *testing.T) {
	f, text := written(t, 7)
	require.Greater(t, f.Tracks[0].Points(), 100_000)
	var before, after runtime.MemStats
	runtime.GC()
	runtime.ReadMemStats(&before)
	back, err := gpx.Read(bytes.NewReader(text))
	runtime.ReadMemStats(&after)
	require.NoError(t, err)
	assert.Equal(t, f.Tracks[0].Points(), back.Tracks[0].Points())
	assert.Less(t, after.Sys, uint64(400<<20), "the whole process, the test's own copies too")
	assert.Less(t, after.HeapAlloc, before.HeapAlloc+150<<20)
}

func FuzzRead(f *testing.F) {
	f.Add([]byte(small))
	f.Add([]byte(`<gpx version="1.1"><trk><trkseg><trkpt lat="1" lon="2"><ele>x</ele></trkpt></trkseg></trk></gpx>`))
	f.Add([]byte(`<!DOCTYPE gpx><gpx/>`))
	f.Add([]byte("\xff\xfe<\x00g\x00"))
	f.Fuzz(func(t *testing.T, data []byte) {
		file, err := gpx.Read(bytes.NewReader(data))
		if err != nil {
			assert.NotEmpty(t, err.Error())
			return
		}
		for _, w := range file.Ways() {
			for _, s := range w.Segments {
				for _, p := range s {
					assert.True(t, p.Valid())
				}
			}
		}
		var again bytes.Buffer
		require.NoError(t, gpx.Write(&again, file))
		back, err := gpx.Read(&again)
		require.NoError(t, err, "what is written is read")
		assert.Equal(t, len(file.Waypoints), len(back.Waypoints))
	})
}

func BenchmarkHundredThousand(b *testing.B) {
	_, text := written(b, 7)
	b.SetBytes(int64(len(text)))
	for b.Loop() {
		if _, err := gpx.Read(bytes.NewReader(text)); err != nil {
			b.Fatal(err)
		}
	}
}

// TestEveryShape: a file of ninety megabytes is refused in whatever shape it comes, or read,
// in little memory, with a short message.
func TestEveryShape(t *testing.T) {
	const open = `<gpx version="1.1">`
	for name, c := range map[string]struct{ head, again, tail string }{
		"an attribute":     {open + `<wpt lat="1" lon="2" x="`, "x", `"/></gpx>`},
		"a comment":        {open + `<!-- `, "<> x", `--></gpx>`},
		"a section":        {open + `<wpt lat="1" lon="2"><name><![CDATA[`, "<> x", `]]></name></wpt></gpx>`},
		"an instruction":   {`<?x `, "<> x", `?>` + open + `</gpx>`},
		"a text":           {open + `<wpt lat="1" lon="2"><name>`, "x", `</name></wpt></gpx>`},
		"a name":           {open + `<`, "x", `/></gpx>`},
		"attributes":       {open + `<wpt lat="1" lon="2"`, ` a="1"`, `/></gpx>`},
		"empty segments":   {open + `<trk>`, `<trkseg/>`, `</trk></gpx>`},
		"empty tracks":     {open, `<trk/>`, `</gpx>`},
		"kinds of a place": {open + `<wpt lat="1" lon="2">`, `<sym>xxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxx</sym>`, `</wpt></gpx>`},
		"places":           {open, `<wpt lat="1" lon="2"><name>x</name></wpt>`, `</gpx>`},
		"points":           {open + `<trk><trkseg>`, `<trkpt lat="1" lon="2"/>`, `</trkseg></trk></gpx>`},
		"depth":            {open, `<a>`, ``},
		"extensions":       {open + `<wpt lat="1" lon="2"><extensions>`, `<a>1</a>`, `</extensions></wpt></gpx>`},
	} {
		size := 90 << 20
		if testing.Short() {
			size = 4 << 20
		}
		var before runtime.MemStats
		runtime.GC()
		runtime.ReadMemStats(&before)
		file, err := gpx.Read(io.MultiReader(strings.NewReader(c.head), repeated(c.again, size), strings.NewReader(c.tail)))
		runtime.GC()
		if err != nil {
			assert.Less(t, len(err.Error()), 200, name)
		}
		var kept runtime.MemStats
		runtime.ReadMemStats(&kept)
		assert.Less(t, int64(kept.HeapAlloc)-int64(before.HeapAlloc), int64(50<<20), "%s is kept", name)
		runtime.KeepAlive(file)
	}
}

// repeated is a text again and again, up to a size.
func repeated(text string, size int) io.Reader {
	chunk := strings.Repeat(text, 1+(64<<10)/len(text))
	var readers []io.Reader
	for n := 0; n < size; n += len(chunk) {
		readers = append(readers, strings.NewReader(chunk))
	}
	return io.MultiReader(readers...)
}

// TestMarkupInPieces: what is read does not hang on where the reader is given its pieces.
func TestMarkupInPieces(t *testing.T) {
	const text = `<?xml version="1.0"?><!-- a > b --><gpx version="1.1"><wpt lat="1" lon="2"><name><![CDATA[a ]] > b]]></name></wpt></gpx>`
	want, err := gpx.Read(strings.NewReader(text))
	require.NoError(t, err)
	require.Len(t, want.Waypoints, 1)
	assert.Equal(t, "a ]] > b", want.Waypoints[0].Name)
	got, err := gpx.Read(iotest.OneByteReader(strings.NewReader(text)))
	require.NoError(t, err)
	assert.Equal(t, want.Waypoints[0].Name, got.Waypoints[0].Name)
}
