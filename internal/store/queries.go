package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"strings"
	"sync"
	"time"

	"github.com/go-sql-driver/mysql"
	"github.com/jmoiron/sqlx"
)

// Queries are those of one request, with what each took. Their values are not kept.
type Queries struct {
	mutex sync.Mutex
	list  []timed
}

type timed struct {
	query string
	took  time.Duration
}

// List is a line for each. It is made when somebody asks: most requests are quick.
func (q *Queries) List() []string {
	q.mutex.Lock()
	defer q.mutex.Unlock()
	const most = 200
	lines := make([]string, len(q.list))
	for i, t := range q.list {
		text := strings.Join(strings.Fields(t.query), " ")
		lines[i] = fmt.Sprintf("%s %s", t.took.Round(10*time.Microsecond), text[:min(most, len(text))])
	}
	return lines
}

type queriesKey struct{}

// Watched is a context whose queries are noted.
func Watched(ctx context.Context, q *Queries) context.Context {
	return context.WithValue(ctx, queriesKey{}, q)
}

// took notes a query that began at a moment.
func took(ctx context.Context, query string, began time.Time) {
	q, ok := ctx.Value(queriesKey{}).(*Queries)
	if !ok {
		return
	}
	q.mutex.Lock()
	defer q.mutex.Unlock()
	q.list = append(q.list, timed{query, time.Since(began)})
}

// pool is the database, its queries noted.
type pool struct{ *sqlx.DB }

func (p pool) GetContext(ctx context.Context, to any, query string, args ...any) error {
	defer took(ctx, query, time.Now())
	return p.DB.GetContext(ctx, to, query, args...)
}

func (p pool) SelectContext(ctx context.Context, to any, query string, args ...any) error {
	defer took(ctx, query, time.Now())
	return p.DB.SelectContext(ctx, to, query, args...)
}

func (p pool) ExecContext(ctx context.Context, query string, args ...any) (sql.Result, error) {
	defer took(ctx, query, time.Now())
	result, err := p.DB.ExecContext(ctx, query, args...)
	if errors.Is(err, mysql.ErrInvalidConn) || errors.Is(err, context.DeadlineExceeded) { // it was sent
		return nil, fmt.Errorf("%w: %w", ErrDoubt, err)
	}
	return result, err
}

// transaction is one, its queries noted.
type transaction struct{ *sqlx.Tx }

func (t transaction) GetContext(ctx context.Context, to any, query string, args ...any) error {
	defer took(ctx, query, time.Now())
	return t.Tx.GetContext(ctx, to, query, args...)
}

func (t transaction) SelectContext(ctx context.Context, to any, query string, args ...any) error {
	defer took(ctx, query, time.Now())
	return t.Tx.SelectContext(ctx, to, query, args...)
}

func (t transaction) ExecContext(ctx context.Context, query string, args ...any) (sql.Result, error) {
	defer took(ctx, query, time.Now())
	return t.Tx.ExecContext(ctx, query, args...)
}

func (t transaction) commit(ctx context.Context) error {
	defer took(ctx, "COMMIT", time.Now())
	return t.Commit()
}
