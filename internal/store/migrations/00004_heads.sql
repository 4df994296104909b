-- +goose Up
CREATE TABLE IF NOT EXISTS heads (
    plan_id     CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    revision_id CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL COMMENT 'what the rider sees',
    tip_id      CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL COMMENT 'where redo leads',
    PRIMARY KEY (plan_id),
    CONSTRAINT heads_plan FOREIGN KEY (plan_id) REFERENCES plans (id),
    CONSTRAINT heads_revision FOREIGN KEY (revision_id) REFERENCES revisions (id),
    CONSTRAINT heads_tip FOREIGN KEY (tip_id) REFERENCES revisions (id)
) ENGINE = InnoDB DEFAULT CHARACTER SET = utf8mb4 COLLATE = utf8mb4_unicode_ci;
