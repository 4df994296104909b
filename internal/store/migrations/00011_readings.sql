-- +goose Up
CREATE TABLE IF NOT EXISTS readings (
    log_id   CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL COMMENT 'the first plan of a family: its variants share the log',
    id       CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL COMMENT 'made by the client: sent twice, kept once',
    document LONGTEXT NOT NULL,
    made_at  DATETIME(6) NOT NULL,
    PRIMARY KEY (log_id, id),
    CONSTRAINT readings_log FOREIGN KEY (log_id) REFERENCES plans (id),
    CONSTRAINT readings_json CHECK (JSON_VALID(document))
) ENGINE = InnoDB DEFAULT CHARACTER SET = utf8mb4 COLLATE = utf8mb4_unicode_ci;
