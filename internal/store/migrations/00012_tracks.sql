-- +goose Up
CREATE TABLE IF NOT EXISTS tracks (
    rider_id CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    address  CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL COMMENT 'a hash of what it holds',
    points   LONGBLOB NOT NULL,
    made_at  DATETIME(6) NOT NULL,
    PRIMARY KEY (rider_id, address),
    CONSTRAINT tracks_rider FOREIGN KEY (rider_id) REFERENCES riders (id)
) ENGINE = InnoDB DEFAULT CHARACTER SET = utf8mb4 COLLATE = utf8mb4_unicode_ci;
