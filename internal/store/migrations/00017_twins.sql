-- +goose Up
ALTER TABLE riders ADD COLUMN IF NOT EXISTS twin_key VARCHAR(400) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NULL COMMENT 'the name as names are compared, where an earlier account has the same one',
    ADD KEY IF NOT EXISTS riders_twin_key (twin_key);
UPDATE riders SET twin_key = LEFT(name_key, CHAR_LENGTH(name_key) - 27) WHERE twin_key IS NULL AND name_key LIKE CONCAT('% ', id);
