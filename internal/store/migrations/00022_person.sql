-- +goose Up
ALTER TABLE riders ADD COLUMN IF NOT EXISTS person VARCHAR(4000) NOT NULL DEFAULT '' COMMENT 'who rides, as a plan has it; empty: not said';
