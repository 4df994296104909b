-- +goose Up
CREATE TABLE IF NOT EXISTS plans (
    id         CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    rider_id   CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    created_at DATETIME(6) NOT NULL,
    PRIMARY KEY (id),
    KEY plans_rider (rider_id, created_at),
    CONSTRAINT plans_rider FOREIGN KEY (rider_id) REFERENCES riders (id)
) ENGINE = InnoDB DEFAULT CHARACTER SET = utf8mb4 COLLATE = utf8mb4_unicode_ci;
