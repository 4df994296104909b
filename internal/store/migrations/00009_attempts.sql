-- +goose Up
CREATE TABLE IF NOT EXISTS attempts (
    bucket  BINARY(32) NOT NULL COMMENT 'a hash of what is limited: a name, an address',
    tries   INT NOT NULL,
    expires DATETIME(6) NOT NULL COMMENT 'when counting starts anew',
    PRIMARY KEY (bucket),
    KEY attempts_expires (expires)
) ENGINE = InnoDB DEFAULT CHARACTER SET = utf8mb4 COLLATE = utf8mb4_unicode_ci;
