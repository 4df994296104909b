-- +goose Up
CREATE TABLE IF NOT EXISTS sessions (
    token  CHAR(43) CHARACTER SET ascii COLLATE ascii_bin NOT NULL COMMENT 'a hash of what the cookie holds',
    data   BLOB NOT NULL,
    expiry TIMESTAMP(6) NOT NULL DEFAULT CURRENT_TIMESTAMP(6),
    PRIMARY KEY (token),
    KEY sessions_expiry (expiry)
) ENGINE = InnoDB DEFAULT CHARACTER SET = utf8mb4 COLLATE = utf8mb4_unicode_ci;
