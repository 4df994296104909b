package store

import (
	"cmp"
	"context"
	"fmt"
	"hash/crc32"
	"maps"
	"slices"

	"github.com/jmoiron/sqlx"
	"github.com/maypok86/otter/v2"

	"valiantmule/internal/core/logbook"
	"valiantmule/internal/format"
)

// readingLog is what one log holds.
type readingLog struct {
	readings []logbook.Reading
	aside    []string // what could not be read
	seen     logSum
}

// logSum is what the database can tell of a log without sending it: how many rows, and a
// sum over all of them.
type logSum struct {
	Rows  int    `db:"n"`
	Check uint64 `db:"checks"`
}

// version tells whether anything of a log has changed.
func (s logSum) version() string { return fmt.Sprintf(" %d %x", s.Rows, s.Check) }

// Long logs are taken apart once and kept for as long as the database says that they are
// the same, for whoever has one looks at it again and again: at most so many readings.
const (
	longLog = 300
	keptMax = 15_000
)

// newLogs is where long logs are kept.
func newLogs() *otter.Cache[string, readingLog] {
	return otter.Must(&otter.Options[string, readingLog]{
		MaximumWeight: keptMax,
		Weigher:       func(_ string, log readingLog) uint32 { return uint32(log.seen.Rows) },
	})
}

// readings of logs, each log's in the order in which they came. Nobody writes to what is
// given out: it may be kept.
func (s *Store) readings(ctx context.Context, ids []string) (map[string]readingLog, error) {
	lists, err := s.unchanged(ctx, ids)
	if err != nil {
		return nil, err
	}
	unknown := slices.DeleteFunc(slices.Clone(ids), func(id string) bool { _, kept := lists[id]; return kept })
	if len(unknown) == 0 {
		return lists, nil
	}
	query, args, err := sqlx.In(`SELECT log_id, id, document FROM readings WHERE log_id IN (?) ORDER BY made_at, id`, unknown)
	if err != nil {
		return nil, err
	}
	var rows []logRow
	if err := s.db.SelectContext(ctx, &rows, query, args...); err != nil {
		return nil, err
	}
	slices.SortStableFunc(rows, func(a, b logRow) int { return cmp.Compare(a.Log, b.Log) })
	for len(rows) > 0 {
		n := 1
		for n < len(rows) && rows[n].Log == rows[0].Log {
			n++
		}
		log := readLog(rows[:n])
		if n >= longLog {
			s.logs.Set(rows[0].Log, log)
		}
		lists[rows[0].Log] = log
		rows = rows[n:]
	}
	return lists, nil
}

// unchanged are those of some logs that are kept and still what the database holds.
func (s *Store) unchanged(ctx context.Context, ids []string) (map[string]readingLog, error) {
	lists := map[string]readingLog{}
	var kept []string
	for _, id := range ids {
		if log, ok := s.logs.GetIfPresent(id); ok {
			lists[id], kept = log, append(kept, id)
		}
	}
	if len(kept) == 0 {
		return lists, nil
	}
	query, args, err := sqlx.In(`SELECT log_id, COUNT(*) AS n, BIT_XOR(CRC32(CONCAT(id, document))) AS checks FROM readings WHERE log_id IN (?) GROUP BY log_id`, kept)
	if err != nil {
		return nil, err
	}
	var rows []struct {
		Log string `db:"log_id"`
		logSum
	}
	if err := s.db.SelectContext(ctx, &rows, query, args...); err != nil {
		return nil, err
	}
	now := map[string]logSum{}
	for _, row := range rows {
		now[row.Log] = row.logSum
	}
	maps.DeleteFunc(lists, func(id string, log readingLog) bool { return now[id] != log.seen })
	return lists, nil
}

type logRow struct {
	Log      string `db:"log_id"`
	ID       string `db:"id"`
	Document []byte `db:"document"`
}

// readLog takes a log apart. What of it cannot be read is set aside.
func readLog(rows []logRow) (log readingLog) {
	for i, row := range rows {
		log.seen.Check ^= uint64(crc32.Update(crc32.ChecksumIEEE([]byte(row.ID)), crc32.IEEETable, row.Document))
		var r logbook.Reading
		err := format.DecodePiece(row.Document, &r)
		if err == nil {
			err = sound(r)
		}
		if err == nil {
			log.readings = append(log.readings, r)
		} else {
			log.aside = append(log.aside, fmt.Sprintf("reading %d: %v, set aside", i+1, err))
		}
	}
	log.seen.Rows, log.readings = len(rows), slices.Clip(log.readings)
	return log
}
