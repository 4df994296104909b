package store

import (
	"context"
	"crypto/sha256"
	"database/sql"
	"encoding/hex"
	"errors"
	"sync"
	"time"

	"github.com/go-json-experiment/json"

	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/format"
)

const bikeKind = "bike"

// LoadCatalogue puts bikes and parts on the shelf, over older ones of the same
// id.
func (s *Store) LoadCatalogue(ctx context.Context, bikes []*plan.Bike, parts plan.Shelf) error {
	defer s.forgetShelf()
	return s.change(ctx, func(tx transaction) error {
		for i, b := range bikes {
			if err := shelve(ctx, tx, bikeKind, b.ID, i, b); err != nil {
				return err
			}
		}
		for i, p := range parts {
			if err := shelve(ctx, tx, string(p.Slot), p.ID, i, p); err != nil {
				return err
			}
		}
		return nil
	})
}

func shelve(ctx context.Context, tx transaction, kind, id string, position int, what any) error {
	document, err := json.Marshal(what, json.Deterministic(true))
	if err != nil {
		return err
	}
	_, err = tx.ExecContext(ctx, `
		INSERT INTO catalogue (kind, id, position, document) VALUES (?, ?, ?, ?)
		ON DUPLICATE KEY UPDATE position = VALUES(position), document = VALUES(document)`, kind, id, position, document)
	return err
}

// Bikes of the catalogue.
func (s *Store) Bikes(ctx context.Context) ([]*plan.Bike, error) {
	var documents [][]byte
	err := s.db.SelectContext(ctx, &documents, `SELECT document FROM catalogue WHERE kind = ? ORDER BY position, id`, bikeKind)
	if err != nil {
		return nil, err
	}
	return decodeAll[plan.Bike](documents)
}

// Bike of the catalogue; ErrNotFound when there is none.
func (s *Store) Bike(ctx context.Context, id string) (*plan.Bike, error) {
	var document []byte
	err := s.db.GetContext(ctx, &document, `SELECT document FROM catalogue WHERE kind = ? AND id = ?`, bikeKind, id)
	if errors.Is(err, sql.ErrNoRows) {
		return nil, ErrNotFound
	}
	if err != nil {
		return nil, err
	}
	b := new(plan.Bike)
	return b, format.DecodePiece(document, b)
}

// shelfKept is how long the shelf is kept: it is read by every page and changes
// when somebody loads another catalogue.
const shelfKept = time.Minute

// Shelf is every part of the catalogue, with a version that tells whether it has
// changed. The parts are shared: nobody changes one.
func (s *Store) Shelf(ctx context.Context) (shelf plan.Shelf, version string, err error) {
	s.shelf.Lock()
	defer s.shelf.Unlock()
	if s.shelf.parts != nil && s.now().Sub(s.shelf.read) < shelfKept {
		return s.shelf.parts, s.shelf.version, nil
	}
	if shelf, version, err = s.readShelf(ctx); err != nil {
		return nil, "", err
	}
	s.shelf.parts, s.shelf.version, s.shelf.read = shelf, version, s.now()
	return shelf, version, nil
}

// shelf is the catalogue's parts as last read.
type shelf struct {
	sync.Mutex
	parts   plan.Shelf
	version string
	read    time.Time
}

func (s *Store) forgetShelf() {
	s.shelf.Lock()
	defer s.shelf.Unlock()
	s.shelf.parts = nil
}

func (s *Store) readShelf(ctx context.Context) (shelf plan.Shelf, version string, err error) {
	var documents [][]byte
	err = s.db.SelectContext(ctx, &documents, `SELECT document FROM catalogue WHERE kind <> ? ORDER BY kind, position, id`, bikeKind)
	if err != nil {
		return nil, "", err
	}
	sum := sha256.New()
	for _, d := range documents {
		sum.Write(d)
	}
	shelf, err = decodeAll[parts.Part](documents)
	return shelf, hex.EncodeToString(sum.Sum(nil)), err
}

func decodeAll[T any](documents [][]byte) ([]*T, error) {
	list := make([]*T, len(documents))
	for i, d := range documents {
		list[i] = new(T)
		if err := format.DecodePiece(d, list[i]); err != nil {
			return nil, err
		}
	}
	return list, nil
}
