-- +goose Up
ALTER TABLE riders ADD COLUMN units VARCHAR(200) NOT NULL DEFAULT '' COMMENT 'units that stand for metric ones, kg=lb';
