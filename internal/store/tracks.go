package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"

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
		if err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, `UPDATE riders SET bytes = bytes + ? WHERE id = ?`, len(blob), rider); err != nil {
			return err
		}
		var kept struct {
			Tracks int   `db:"tracks"`
			Bytes  int64 `db:"bytes"`
		}
		if err := tx.GetContext(ctx, &kept, `SELECT (SELECT COUNT(*) FROM tracks WHERE rider_id = riders.id) AS tracks, bytes FROM riders WHERE id = ?`, rider); err != nil {
			return err
		}
		if kept.Tracks > s.quotas.Tracks {
			return &Quota{fmt.Sprintf("This account keeps %d tracks, and no more.", s.quotas.Tracks), "The histories of plans hold on to them; ask who runs this site for more."}
		}
		return s.heavy(kept.Bytes)
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
