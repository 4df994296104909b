-- +goose Up
CREATE TABLE IF NOT EXISTS health (
    id         TINYINT NOT NULL,
    checked_at DATETIME(6) NOT NULL COMMENT 'written to see whether the database takes anything',
    PRIMARY KEY (id)
) ENGINE = InnoDB DEFAULT CHARACTER SET = utf8mb4 COLLATE = utf8mb4_unicode_ci;
