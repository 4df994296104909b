-- +goose Up
CREATE TABLE IF NOT EXISTS things (
    id       CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    rider_id CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    bike_id  CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NULL COMMENT 'that it was bought for; null: none',
    document LONGTEXT NOT NULL,
    made_at  DATETIME(6) NOT NULL,
    PRIMARY KEY (id),
    KEY things_rider (rider_id, made_at),
    CONSTRAINT things_rider FOREIGN KEY (rider_id) REFERENCES riders (id),
    CONSTRAINT things_json CHECK (JSON_VALID(document))
) ENGINE = InnoDB DEFAULT CHARACTER SET = utf8mb4 COLLATE = utf8mb4_unicode_ci;
CREATE TABLE IF NOT EXISTS moves (
    id          CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    act_id      CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL COMMENT 'made by the client: sent twice, done once',
    rider_id    CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    thing_id    CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    number      INT NOT NULL COMMENT 'of all moves of the rider, from one',
    bike_id     CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NULL COMMENT 'that it goes on; null: none',
    revision_id CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NULL COMMENT 'of the plan that it was done in; null: in the garage',
    document    LONGTEXT NOT NULL,
    made_at     DATETIME(6) NOT NULL,
    PRIMARY KEY (id),
    UNIQUE KEY moves_number (rider_id, number),
    KEY moves_act (act_id),
    KEY moves_revision (revision_id),
    CONSTRAINT moves_thing FOREIGN KEY (thing_id) REFERENCES things (id),
    CONSTRAINT moves_json CHECK (JSON_VALID(document))
) ENGINE = InnoDB DEFAULT CHARACTER SET = utf8mb4 COLLATE = utf8mb4_unicode_ci;
CREATE TABLE IF NOT EXISTS counts_on (
    plan_id  CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    thing_id CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    PRIMARY KEY (plan_id, thing_id),
    KEY counts_on_thing (thing_id)
) ENGINE = InnoDB DEFAULT CHARACTER SET = utf8mb4 COLLATE = utf8mb4_unicode_ci;
ALTER TABLE riders
    ADD COLUMN IF NOT EXISTS moves INT NOT NULL DEFAULT 0 COMMENT 'what ever happened to things, or was said of them';
