package store

import (
	"context"
	"database/sql"
	"fmt"
	"slices"

	"github.com/jmoiron/sqlx"
	"github.com/maypok86/otter/v2"

	"valiantmule/internal/core/logbook"
	"valiantmule/internal/format"
)

// readingLog is what one log holds, in the order in which it came.
type readingLog struct {
	readings []logbook.Reading
	numbers  []int    // of each
	via      []string // the plan that each was written down in, "" for none
	aside    []string // what could not be read
	rows     int
}

// of a plan are the readings that it has taken over, the first so many, and those that were
// written down in it.
func (l *readingLog) of(plan string, taken int) []logbook.Reading {
	if taken >= l.rows {
		return l.readings
	}
	var list []logbook.Reading
	for i, r := range l.readings {
		if l.numbers[i] <= taken || l.via[i] == plan {
			list = append(list, r)
		}
	}
	return list
}

// besides are the readings that a plan has not.
func (l *readingLog) besides(plan string, taken int) (list []logbook.Reading) {
	for i, r := range l.readings {
		if l.numbers[i] > taken && l.via[i] != plan {
			list = append(list, r)
		}
	}
	return list
}

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
		Weigher:       func(_ string, log readingLog) uint32 { return uint32(log.rows) },
	})
}

// readings of logs, each of so many: of a log that has more by now the first. Nobody writes
// to what is given out: it may be kept, for what is in a log is never changed.
func (s *Store) readings(ctx context.Context, counts map[string]int) (map[string]readingLog, error) {
	lists := map[string]readingLog{}
	var unknown []string
	for id, rows := range counts {
		if log, ok := s.logs.GetIfPresent(id); ok && log.rows == rows {
			lists[id] = log
		} else if rows > 0 {
			unknown = append(unknown, id)
		}
	}
	if len(unknown) == 0 {
		return lists, nil
	}
	query, args, err := sqlx.In(`SELECT log_id, id, document, number, via_id FROM readings WHERE log_id IN (?) ORDER BY log_id, number, id`, unknown)
	if err != nil {
		return nil, err
	}
	var rows []logRow
	if err := s.db.SelectContext(ctx, &rows, query, args...); err != nil {
		return nil, err
	}
	for len(rows) > 0 {
		n := 1
		for n < len(rows) && rows[n].Log == rows[0].Log {
			n++
		}
		id := rows[0].Log
		log := readLog(rows[:min(n, counts[id])])
		if log.rows >= longLog {
			s.logs.Set(id, log)
		}
		lists[id], rows = log, rows[n:]
	}
	return lists, nil
}

type logRow struct {
	Log      string         `db:"log_id"`
	ID       string         `db:"id"`
	Document []byte         `db:"document"`
	Number   int            `db:"number"`
	Via      sql.NullString `db:"via_id"`
}

// readLog takes a log apart. What of it cannot be read is set aside.
func readLog(rows []logRow) (log readingLog) {
	for i, row := range rows {
		var r logbook.Reading
		err := format.DecodePiece(row.Document, &r)
		if err == nil {
			err = sound(r)
		}
		if err != nil {
			log.aside = append(log.aside, fmt.Sprintf("reading %d: %v, set aside", i+1, err))
			continue
		}
		log.readings, log.numbers, log.via = append(log.readings, r), append(log.numbers, row.Number), append(log.via, row.Via.String)
	}
	log.rows, log.readings = len(rows), slices.Clip(log.readings)
	return log
}
