-- +goose Up
CREATE TABLE IF NOT EXISTS catalogue (
    kind     VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL COMMENT 'bike, or the slot of a part',
    id       VARCHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    position INT NOT NULL COMMENT 'order on the shelf',
    document LONGTEXT NOT NULL,
    PRIMARY KEY (kind, id),
    CONSTRAINT catalogue_json CHECK (JSON_VALID(document))
) ENGINE = InnoDB DEFAULT CHARACTER SET = utf8mb4 COLLATE = utf8mb4_unicode_ci;
