-- +goose Up
ALTER TABLE revisions ADD COLUMN IF NOT EXISTS next_id CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NULL COMMENT 'the latest one made on top of it: where redo leads';
UPDATE revisions r JOIN revisions n ON n.parent_id = r.id LEFT JOIN revisions later ON later.parent_id = r.id AND later.made_at > n.made_at
    SET r.next_id = n.id WHERE later.id IS NULL AND r.next_id IS NULL;
ALTER TABLE heads DROP FOREIGN KEY IF EXISTS heads_tip, DROP KEY IF EXISTS heads_tip, DROP COLUMN IF EXISTS tip_id;
