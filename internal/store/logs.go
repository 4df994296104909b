package store

import (
	"cmp"
	"context"
	"crypto/sha256"
	"encoding/hex"
	"fmt"
	"hash/crc32"
	"slices"
	"sync"

	"github.com/jmoiron/sqlx"

	"valiantmule/internal/core/plan"
	"valiantmule/internal/format"
)

// readingLog is what one log holds.
type readingLog struct {
	readings []plan.Reading
	aside    []string // what could not be read
	version  string   // tells whether anything of it has changed
	seen     logSum
}

// logSum is what the database can tell of a log without sending it: how many rows, and a
// sum over all of them.
type logSum struct {
	Rows  int    `db:"n"`
	Check uint64 `db:"checks"`
}

// Long logs are taken apart once and kept for as long as the database says that they are
// the same; a few of them, for whoever has one looks at it again and again.
const (
	longLog  = 300
	keptLogs = 6
)

// logs are the long ones that are kept.
type logs struct {
	mutex sync.Mutex
	kept  map[string]readingLog
	order []string // the oldest first
}

func (l *logs) get(id string) (readingLog, bool) {
	l.mutex.Lock()
	defer l.mutex.Unlock()
	log, ok := l.kept[id]
	return log, ok
}

func (l *logs) keep(id string, log readingLog) {
	l.mutex.Lock()
	defer l.mutex.Unlock()
	if l.kept == nil {
		l.kept = map[string]readingLog{}
	}
	if _, again := l.kept[id]; !again {
		if l.order = append(l.order, id); len(l.order) > keptLogs {
			delete(l.kept, l.order[0])
			l.order = l.order[1:]
		}
	}
	l.kept[id] = log
}

// readings of logs, each log's in the order in which they came. Nobody writes to what is
// given out: it may be kept.
func (s *Store) readings(ctx context.Context, ids []string) (map[string]readingLog, error) {
	lists := map[string]readingLog{}
	var unknown []string
	for _, id := range ids {
		log, kept := s.logs.get(id)
		if kept {
			var now logSum
			err := s.db.GetContext(ctx, &now, `SELECT COUNT(*) AS n, BIT_XOR(CRC32(CONCAT(id, document))) AS checks FROM readings WHERE log_id = ?`, id)
			if err != nil {
				return nil, err
			}
			kept = now == log.seen
		}
		if kept {
			lists[id] = log
		} else {
			unknown = append(unknown, id)
		}
	}
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
			s.logs.keep(rows[0].Log, log)
		}
		lists[rows[0].Log] = log
		rows = rows[n:]
	}
	return lists, nil
}

type logRow struct {
	Log      string `db:"log_id"`
	ID       string `db:"id"`
	Document []byte `db:"document"`
}

// readLog takes a log apart. What of it cannot be read is set aside.
func readLog(rows []logRow) (log readingLog) {
	sum := sha256.New()
	for i, row := range rows {
		sum.Write(row.Document)
		log.seen.Check ^= uint64(crc32.Update(crc32.ChecksumIEEE([]byte(row.ID)), crc32.IEEETable, row.Document))
		var r plan.Reading
		err := format.DecodeStrict(row.Document, &r)
		if err == nil {
			err = sound(r)
		}
		if err == nil {
			log.readings = append(log.readings, r)
		} else {
			log.aside = append(log.aside, fmt.Sprintf("reading %d: %v, set aside", i+1, err))
		}
	}
	log.seen.Rows, log.readings, log.version = len(rows), slices.Clip(log.readings), hex.EncodeToString(sum.Sum(nil))
	return log
}
