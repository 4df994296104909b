package format

import (
	"bytes"
	"compress/gzip"
	"crypto/sha256"
	"encoding/binary"
	"encoding/hex"
	"errors"
	"fmt"
	"io"
	"math"

	"valiantmule/internal/core/geo"
	"valiantmule/internal/core/track"
)

// A track as it is kept: gzipped; for each part its name, then the segments, each
// with its number of points and three 32-bit numbers a point: latitude and
// longitude in ten millionths of a degree, height in centimetres.

const (
	blobScale  = 1e7
	blobHeight = 100
	noHeight   = math.MinInt32
)

// EncodeTrack is a track as it is kept, and its address: the hash of what it holds.
func EncodeTrack(parts []track.Part) (blob []byte, address string, err error) {
	var raw bytes.Buffer
	put := func(v any) { _ = binary.Write(&raw, binary.LittleEndian, v) } // into memory
	put(uint32(len(parts)))
	for _, p := range parts {
		put(uint32(len(p.Name)))
		raw.WriteString(p.Name)
		put(uint32(len(p.Segments)))
		for _, s := range p.Segments {
			put(uint32(len(s)))
			flat := make([]int32, 0, 3*len(s))
			for _, at := range s {
				height := int32(noHeight)
				if !math.IsNaN(at.EleM) {
					height = int32(math.Round(at.EleM * blobHeight))
				}
				flat = append(flat, int32(math.Round(at.Lat*blobScale)), int32(math.Round(at.Lon*blobScale)), height)
			}
			put(flat)
		}
	}
	sum := sha256.Sum256(raw.Bytes())
	var zipped bytes.Buffer
	w := gzip.NewWriter(&zipped)
	if _, err := w.Write(raw.Bytes()); err != nil {
		return nil, "", err
	}
	if err := w.Close(); err != nil {
		return nil, "", err
	}
	return zipped.Bytes(), hex.EncodeToString(sum[:]), nil
}

// maxBlob bounds what a kept track unpacks to.
const maxBlob = 64 << 20

var errBlob = errors.New("the kept track is damaged")

// DecodeTrack reads what EncodeTrack wrote.
func DecodeTrack(blob []byte) ([]track.Part, error) {
	unzip, err := gzip.NewReader(bytes.NewReader(blob))
	if err != nil {
		return nil, fmt.Errorf("%w: %w", errBlob, err)
	}
	raw, err := io.ReadAll(io.LimitReader(unzip, maxBlob+1))
	if err != nil || len(raw) > maxBlob {
		return nil, errBlob
	}
	r := blobReader{raw}
	parts := make([]track.Part, r.count(8))
	for i := range parts {
		parts[i].Name = string(r.take(r.count(1)))
		parts[i].Segments = make([][]track.Point, r.count(4))
		for j := range parts[i].Segments {
			points := make([]track.Point, r.count(12))
			for k := range points {
				points[k] = track.Point{Point: geo.Point{Lat: float64(r.number()) / blobScale, Lon: float64(r.number()) / blobScale}, EleM: math.NaN()}
				if h := r.number(); h != noHeight {
					points[k].EleM = float64(h) / blobHeight
				}
			}
			parts[i].Segments[j] = points
		}
	}
	if r.left == nil {
		return nil, errBlob
	}
	return parts, nil
}

// blobReader reads on; past the end it is nil and gives zeros.
type blobReader struct{ left []byte }

func (r *blobReader) take(n int) []byte {
	if r.left == nil || n > len(r.left) {
		r.left = nil
		return nil
	}
	out := r.left[:n]
	r.left = r.left[n:]
	return out
}

func (r *blobReader) number() int32 {
	if b := r.take(4); b != nil {
		return int32(binary.LittleEndian.Uint32(b))
	}
	return 0
}

// count of things that take at least so many bytes each.
func (r *blobReader) count(each int) int {
	n := int(uint32(r.number()))
	if n > len(r.left)/each {
		r.left = nil
		return 0
	}
	return n
}
