-- +goose Up
ALTER TABLE riders ADD COLUMN IF NOT EXISTS epoch INT NOT NULL DEFAULT 0 COMMENT 'sessions of an older one are signed out';
