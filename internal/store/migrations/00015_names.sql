-- +goose Up
ALTER TABLE riders ADD COLUMN IF NOT EXISTS name_key VARCHAR(400) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NULL COMMENT 'the name as names are compared; null: to be made',
    ADD UNIQUE KEY IF NOT EXISTS riders_name_key (name_key),
    DROP KEY IF EXISTS riders_name;
ALTER TABLE attempts ADD COLUMN IF NOT EXISTS ready DATETIME(6) NOT NULL DEFAULT '2000-01-01' COMMENT 'when the next try is taken';
CREATE TABLE IF NOT EXISTS visits (
    rider_id CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    address  BINARY(32) NOT NULL COMMENT 'a hash of where the rider has signed in from',
    seen_at  DATETIME(6) NOT NULL,
    PRIMARY KEY (rider_id, address),
    CONSTRAINT visits_rider FOREIGN KEY (rider_id) REFERENCES riders (id)
) ENGINE = InnoDB DEFAULT CHARACTER SET = utf8mb4 COLLATE = utf8mb4_unicode_ci;
