package store

import (
	"errors"
	"sync/atomic"
)

// Counts are how often something happened since this program began.
type Counts struct {
	Kept      atomic.Int64 // changes
	Conflicts atomic.Int64 // changes on top of what is no longer the head
	Retries   atomic.Int64 // transactions run again, because the database broke one off
	Doubts    atomic.Int64 // changes of which the database did not say whether it kept them
}

// Counts of the store.
func (s *Store) Counts() *Counts { return &s.counts }

// count one change by how it ended.
func (c *Counts) count(err error) {
	switch {
	case err == nil:
		c.Kept.Add(1)
	case errors.Is(err, ErrStale):
		c.Conflicts.Add(1)
	case errors.Is(err, ErrDoubt):
		c.Doubts.Add(1)
	}
}
