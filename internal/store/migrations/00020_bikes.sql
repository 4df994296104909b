-- +goose Up
RENAME TABLE IF EXISTS plans TO dossiers;
ALTER TABLE dossiers
    ADD COLUMN IF NOT EXISTS kind VARCHAR(4) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT 'plan' COMMENT 'plan, or bike',
    ADD COLUMN IF NOT EXISTS via_id CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NULL COMMENT 'of a bike: the plan that it was made in; null: by itself',
    ADD COLUMN IF NOT EXISTS archived_at DATETIME(6) NULL COMMENT 'put aside, of a bike; null: in the garage';
ALTER TABLE revisions RENAME COLUMN IF EXISTS plan_id TO dossier_id;
ALTER TABLE revisions
    ADD COLUMN IF NOT EXISTS bike_id CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NULL COMMENT 'of a plan: its bike; null: none',
    ADD COLUMN IF NOT EXISTS bike_revision_id CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NULL COMMENT 'that the plan has taken its bike over from; null: what it holds itself',
    ADD COLUMN IF NOT EXISTS taken INT NOT NULL DEFAULT 0 COMMENT 'how many of the readings off the bike the plan has taken over',
    ADD COLUMN IF NOT EXISTS wrote_id CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NULL COMMENT 'the revision of the bike that was made with it',
    ADD COLUMN IF NOT EXISTS as_id CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NULL COMMENT 'the revision that it is equal to, of one that an undo or a redo has made',
    ADD CONSTRAINT revisions_bike FOREIGN KEY IF NOT EXISTS (bike_id) REFERENCES dossiers (id) ON DELETE SET NULL;
ALTER TABLE heads RENAME COLUMN IF EXISTS plan_id TO dossier_id;
ALTER TABLE heads
    ADD COLUMN IF NOT EXISTS readings INT NOT NULL DEFAULT 0 COMMENT 'in the log that hangs on it';
ALTER TABLE readings
    MODIFY COLUMN log_id CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL COMMENT 'the bike, or the plan that has none yet',
    ADD COLUMN IF NOT EXISTS number INT NOT NULL DEFAULT 0 COMMENT 'in the log, from one',
    ADD COLUMN IF NOT EXISTS via_id CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NULL COMMENT 'the plan that it was written down in';
