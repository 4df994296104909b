-- +goose Up
CREATE TABLE IF NOT EXISTS riders (
    id            CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    name          VARCHAR(100) NOT NULL,
    password_hash VARBINARY(100) NULL COMMENT 'null: no password opens this account',
    created_at    DATETIME(6) NOT NULL,
    PRIMARY KEY (id),
    UNIQUE KEY riders_name (name)
) ENGINE = InnoDB DEFAULT CHARACTER SET = utf8mb4 COLLATE = utf8mb4_unicode_ci;
