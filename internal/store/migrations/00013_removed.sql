-- +goose Up
ALTER TABLE plans ADD COLUMN IF NOT EXISTS removed_at DATETIME(6) NULL COMMENT 'thrown away, and kept for a while; null: in the garage';
