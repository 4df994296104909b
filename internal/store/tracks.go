package store

import (
	"context"
	"database/sql"
	"errors"

	"valiantmule/internal/core/track"
	"valiantmule/internal/format"
)

// KeepTrack keeps a rider's track under its address, a hash of what it holds: kept
// twice it is there once.
func (s *Store) KeepTrack(ctx context.Context, rider string, parts []track.Part) (address string, err error) {
	blob, address, err := format.EncodeTrack(parts)
	if err != nil {
		return "", err
	}
	return address, s.change(ctx, func(tx transaction) error {
		_, err := tx.ExecContext(ctx, `INSERT INTO tracks (rider_id, address, points, made_at) VALUES (?, ?, ?, ?)`, rider, address, blob, s.now())
		if duplicate(err) {
			return nil
		}
		return err
	})
}

// Track of a rider's; ErrNotFound when there is none at the address.
func (s *Store) Track(ctx context.Context, rider, address string) ([]track.Part, error) {
	var blob []byte
	err := s.db.GetContext(ctx, &blob, `SELECT points FROM tracks WHERE rider_id = ? AND address = ?`, rider, address)
	if errors.Is(err, sql.ErrNoRows) {
		return nil, ErrNotFound
	}
	if err != nil {
		return nil, err
	}
	return format.DecodeTrack(blob)
}
