-- +goose Up
ALTER TABLE riders ADD COLUMN IF NOT EXISTS units VARCHAR(200) NOT NULL DEFAULT '' COMMENT 'units that stand for metric ones, kg=lb';
