package gpx

import (
	"bufio"
	"encoding/xml"
	"fmt"
	"io"
	"math"
	"strconv"

	"valiantmule/internal/core/track"
)

// creator is what a file says made it.
const creator = "Valiant Mule"

// Write writes GPX 1.1: waypoints, then tracks. Routes are written as routes.
func Write(w io.Writer, f File) error {
	out := &writer{w: bufio.NewWriter(w)}
	out.line(`<?xml version="1.0" encoding="UTF-8"?>`)
	out.line(`<gpx version="1.1" creator="` + creator + `" xmlns="` + space11 + `" xmlns:xsi="http://www.w3.org/2001/XMLSchema-instance" xsi:schemaLocation="` + space11 + ` http://www.topografix.com/GPX/1/1/gpx.xsd">`)
	for _, m := range f.Waypoints {
		out.point("wpt", m.Point)
		out.text("name", m.Name)
		out.text("desc", m.Note)
		out.text("type", m.Kind)
		out.line("</wpt>")
	}
	for _, r := range f.Routes {
		out.line("<rte>")
		out.text("name", r.Name)
		for _, s := range r.Segments {
			for _, p := range s {
				out.point("rtept", p)
				out.line("</rtept>")
			}
		}
		out.line("</rte>")
	}
	for _, t := range f.Tracks {
		out.line("<trk>")
		out.text("name", t.Name)
		for _, s := range t.Segments {
			out.line("<trkseg>")
			for _, p := range s {
				out.point("trkpt", p)
				out.line("</trkpt>")
			}
			out.line("</trkseg>")
		}
		out.line("</trk>")
	}
	out.line("</gpx>")
	if out.err != nil {
		return out.err
	}
	return out.w.Flush()
}

// writer keeps the first error.
type writer struct {
	w   *bufio.Writer
	err error
}

func (o *writer) line(text string) {
	if o.err == nil {
		_, o.err = o.w.WriteString(text + "\n")
	}
}

func (o *writer) point(name string, p track.Point) {
	o.line(fmt.Sprintf(`<%s lat="%s" lon="%s">`, name, degrees(p.Lat), degrees(p.Lon)))
	if !math.IsNaN(p.EleM) {
		o.line("<ele>" + strconv.FormatFloat(p.EleM, 'f', 1, 64) + "</ele>")
	}
}

func (o *writer) text(name, text string) {
	if text == "" || o.err != nil {
		return
	}
	_, _ = o.w.WriteString("<" + name + ">") // Flush reports what failed
	o.err = xml.EscapeText(o.w, []byte(text))
	o.line("</" + name + ">")
}

func degrees(v float64) string { return strconv.FormatFloat(v, 'f', 7, 64) }
