package store

import "context"

// MigrateTo brings a database to an earlier version of the schema, for tests of the way from there.
func (s *Store) MigrateTo(ctx context.Context, version int64) error {
	provider, err := s.provider()
	if err == nil {
		_, err = provider.UpTo(ctx, version)
	}
	return err
}
