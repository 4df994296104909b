// Package gpx reads GPX 1.0 and 1.1 and writes 1.1: tracks, routes and waypoints.
//
// Reading streams: a file of a hundred thousand points needs little more than its
// points. Elements of other namespaces are passed over; a document type, and with
// it every entity of the file's own, is refused.
package gpx

import (
	"bytes"
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"math"
	"strconv"
	"strings"
	"time"

	"golang.org/x/text/encoding/htmlindex"
	"golang.org/x/text/encoding/unicode"
	"golang.org/x/text/transform"

	"valiantmule/internal/core/geo"
	"valiantmule/internal/core/track"
)

// File is what of a GPX file is used.
type File struct {
	Tracks    []track.Part
	Routes    []track.Part // of one segment each
	Waypoints []track.Waypoint
}

// Ways are the tracks, or else the routes.
func (f File) Ways() []track.Part {
	if len(f.Tracks) > 0 {
		return f.Tracks
	}
	return f.Routes
}

// Limits of a file, far above any real one.
const (
	MaxBytes  = 96 << 20
	maxPoints = 500_000
	maxWays   = 20_000 // tracks, routes and segments
	maxMarks  = 5000
	maxText   = 500 // bytes of a name or note that are kept
	maxDepth  = 64
)

// The namespaces of the two versions [pub: the GPX 1.0 and 1.1 schemas,
// topografix.com].
const (
	space10 = "http://www.topografix.com/GPX/1/0"
	space11 = "http://www.topografix.com/GPX/1/1"
)

// Read reads a file. An error names the line.
func Read(r io.Reader) (File, error) {
	limited := &io.LimitedReader{R: r, N: MaxBytes + 1}
	text := newBounded(transform.NewReader(limited, unicode.BOMOverride(transform.Nop)))
	d := xml.NewDecoder(text)
	d.CharsetReader = charset
	p := &parser{d: d}
	err := p.run()
	if limited.N <= 0 {
		return File{}, fmt.Errorf("the file is larger than %d MB", MaxBytes>>20)
	}
	if text.err != nil {
		err = text.err
	}
	if err != nil {
		line, _ := d.InputPos()
		return File{}, fmt.Errorf("line %d: %w", line, err)
	}
	return p.file, nil
}

// charset reads another encoding. UTF-16 was turned by its byte order mark already.
func charset(label string, input io.Reader) (io.Reader, error) {
	if strings.HasPrefix(strings.ToLower(label), "utf-16") {
		return input, nil
	}
	e, err := htmlindex.Get(label)
	if err != nil {
		return nil, fmt.Errorf("unknown encoding %s", quote(label))
	}
	return e.NewDecoder().Reader(input), nil
}

// parser goes through the tokens with the names of the open elements.
type parser struct {
	d      *xml.Decoder
	file   File
	open   []string // local names; "" for one that is passed over
	points int
	ways   int

	way   track.Part
	point track.Waypoint // the one that is open
	text  bytes.Buffer
}

func (p *parser) run() error {
	for {
		token, err := p.d.Token()
		switch {
		case errors.Is(err, io.EOF) && len(p.open) == 0:
			return errors.New("there is no gpx in it")
		case err != nil:
			return readable(err)
		}
		switch t := token.(type) {
		case xml.Directive:
			return errors.New("a document type is not taken: save the file without it")
		case xml.StartElement:
			if err := p.start(t); err != nil {
				return err
			}
		case xml.CharData:
			if p.wanted() && p.text.Len() < 4*maxText {
				p.text.Write(t)
			}
		case xml.EndElement:
			if err := p.end(); err != nil {
				return err
			}
			if len(p.open) == 0 {
				return nil
			}
		}
	}
}

// readable is an error of the decoder without its own line number.
func readable(err error) error {
	var syntax *xml.SyntaxError
	if errors.As(err, &syntax) {
		return errors.New(cut(syntax.Msg))
	}
	return err
}

// top is the innermost open element, up the one around it.
func (p *parser) top() string { return p.at(1) }
func (p *parser) up() string  { return p.at(2) }

func (p *parser) at(depth int) string {
	if len(p.open) < depth {
		return ""
	}
	return p.open[len(p.open)-depth]
}

// wanted reports whether the text of the open element is kept.
func (p *parser) wanted() bool {
	switch p.top() {
	case "name", "ele", "cmt", "desc", "sym", "type":
		return true
	case "time":
		return p.up() == "trkpt" && p.way.On[len(p.way.On)-1] == "" // of the first that tells one
	}
	return false
}

func (p *parser) start(t xml.StartElement) error {
	if len(p.open) >= maxDepth {
		return errors.New("elements lie too deep in each other")
	}
	name := t.Name.Local
	if s := t.Name.Space; s != "" && s != space10 && s != space11 {
		name = ""
	}
	if len(p.open) == 0 {
		if err := root(t, name); err != nil {
			return err
		}
	} else if name == "gpx" || p.at(1) == "" || p.at(1) == "extensions" {
		name = "" // inside of something that is passed over
	}
	p.open = append(p.open, name)
	p.text.Reset()
	switch name {
	case "trk", "rte", "trkseg":
		if p.ways++; p.ways > maxWays {
			return fmt.Errorf("more than %d tracks and segments", maxWays)
		}
	}
	switch name {
	case "trk", "rte":
		p.way = track.Part{}
		if name == "rte" {
			p.way.Segments, p.way.On = [][]track.Point{nil}, []string{""}
		}
	case "trkseg":
		p.way.Segments, p.way.On = append(p.way.Segments, nil), append(p.way.On, "")
	case "wpt", "trkpt", "rtept":
		return p.place(t)
	}
	return nil
}

// root checks the outermost element.
func root(t xml.StartElement, name string) error {
	if name != "gpx" {
		return fmt.Errorf("this is %s, not gpx", quote(t.Name.Local))
	}
	for _, a := range t.Attr {
		if a.Name.Local == "version" && a.Name.Space == "" && a.Value != "1.0" && a.Value != "1.1" {
			return fmt.Errorf("version %s of gpx is not read, only 1.0 and 1.1", quote(a.Value))
		}
	}
	return nil
}

// place reads the position of a point.
func (p *parser) place(t xml.StartElement) error {
	if p.points++; p.points > maxPoints {
		return fmt.Errorf("more than %d points", maxPoints)
	}
	at := geo.Point{Lat: math.NaN(), Lon: math.NaN()}
	for _, a := range t.Attr {
		v := &at.Lat
		switch a.Name.Local {
		case "lon":
			v = &at.Lon
		case "lat":
		default:
			continue
		}
		number, err := strconv.ParseFloat(strings.TrimSpace(a.Value), 64)
		if err != nil {
			return fmt.Errorf("%s %s of a %s is not a number", a.Name.Local, quote(a.Value), t.Name.Local)
		}
		*v = number
	}
	if !at.Valid() {
		return fmt.Errorf("a %s without a position on the earth: want lat −90…90 and lon −180…180", t.Name.Local)
	}
	p.point = track.Waypoint{Point: track.Point{Point: at, EleM: math.NaN()}}
	return nil
}

func (p *parser) end() error {
	name, around := p.top(), p.up()
	p.open = p.open[:len(p.open)-1]
	switch name {
	case "trkpt", "rtept":
		if n := len(p.way.Segments); n > 0 && (around == "trkseg" || around == "rte") {
			p.way.Segments[n-1] = append(p.way.Segments[n-1], p.point.Point)
		}
	case "wpt":
		if len(p.file.Waypoints) < maxMarks {
			p.file.Waypoints = append(p.file.Waypoints, p.point)
		}
	case "trk":
		p.file.Tracks = keep(p.file.Tracks, p.way)
	case "rte":
		p.file.Routes = keep(p.file.Routes, p.way)
	case "time":
		if around == "trkpt" && p.text.Len() > 0 {
			p.way.On[len(p.way.On)-1] = dayBySun(p.text.String(), p.point.Lon)
		}
	case "name", "ele", "cmt", "desc", "sym", "type":
		return p.said(name, around)
	}
	return nil
}

// dayBySun is the day of a moment where the sun stands as it does at a longitude, in degrees: a ride that begins in
// the morning is of that day, wherever it is. "" for what is no moment.
func dayBySun(moment string, lon float64) string {
	t, err := time.Parse(time.RFC3339, strings.TrimSpace(moment))
	if err != nil {
		return ""
	}
	return t.UTC().Add(time.Duration(lon / 15 * float64(time.Hour))).Format(time.DateOnly)
}

func keep(list []track.Part, way track.Part) []track.Part {
	if way.Points() == 0 {
		return list
	}
	return append(list, way)
}

// said keeps the text of a name, height or note.
func (p *parser) said(name, of string) error {
	text := clip(strings.Join(strings.Fields(p.text.String()), " "))
	switch of {
	case "trk", "rte":
		if name == "name" {
			p.way.Name = text
		}
	case "wpt", "trkpt", "rtept":
		switch name {
		case "name":
			p.point.Name = text
		case "cmt", "desc":
			if p.point.Note == "" || name == "desc" {
				p.point.Note = text
			}
		case "sym", "type":
			p.point.Kind = clip(strings.TrimSpace(p.point.Kind + " " + text))
		case "ele":
			height, err := strconv.ParseFloat(text, 64)
			if err != nil && text != "" {
				return fmt.Errorf("ele %s is not a number of metres", quote(text))
			}
			if text != "" && math.Abs(height) <= 9000 { // beyond it the receiver had no fix
				p.point.EleM = height
			}
		}
	}
	return nil
}

// clip shortens a text to what is kept, at a character.
func clip(text string) string {
	if len(text) <= maxText {
		return text
	}
	return strings.ToValidUTF8(text[:maxText], "")
}

// quote is what a message quotes of a file.
func quote(text string) string { return strconv.Quote(cut(text)) }

// cut shortens what a message says to what fits a line.
func cut(text string) string {
	const most = 80
	if len(text) <= most {
		return text
	}
	return strings.ToValidUTF8(text[:most], "") + "…"
}
