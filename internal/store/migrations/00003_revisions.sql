-- +goose Up
CREATE TABLE IF NOT EXISTS revisions (
    id        CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    plan_id   CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    parent_id CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NULL COMMENT 'null: the first',
    summary   VARCHAR(500) NOT NULL COMMENT 'what changed, in words',
    document  LONGTEXT NOT NULL,
    made_at   DATETIME(6) NOT NULL,
    PRIMARY KEY (id),
    KEY revisions_plan (plan_id, made_at),
    KEY revisions_parent (parent_id),
    CONSTRAINT revisions_plan FOREIGN KEY (plan_id) REFERENCES plans (id),
    CONSTRAINT revisions_parent FOREIGN KEY (parent_id) REFERENCES revisions (id),
    CONSTRAINT revisions_json CHECK (JSON_VALID(document))
) ENGINE = InnoDB DEFAULT CHARACTER SET = utf8mb4 COLLATE = utf8mb4_unicode_ci;
