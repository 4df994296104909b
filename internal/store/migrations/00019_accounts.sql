-- +goose Up
CREATE TABLE IF NOT EXISTS logins (
    id       CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    rider_id CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    began_at DATETIME(6) NOT NULL,
    seen_at  DATETIME(6) NOT NULL COMMENT 'to a few minutes',
    address  VARCHAR(60) NOT NULL,
    agent    VARCHAR(200) NOT NULL COMMENT 'what the browser says that it is',
    PRIMARY KEY (id),
    KEY logins_rider (rider_id, seen_at),
    CONSTRAINT logins_rider FOREIGN KEY (rider_id) REFERENCES riders (id)
) ENGINE = InnoDB DEFAULT CHARACTER SET = utf8mb4 COLLATE = utf8mb4_unicode_ci;
ALTER TABLE riders DROP COLUMN IF EXISTS epoch,
    ADD COLUMN IF NOT EXISTS address VARCHAR(254) NULL COMMENT 'for letters, confirmed; null: none',
    ADD COLUMN IF NOT EXISTS second_secret VARBINARY(64) NULL COMMENT 'of the second factor; null: none',
    ADD COLUMN IF NOT EXISTS second_step BIGINT NOT NULL DEFAULT 0 COMMENT 'of the last code taken: none is taken twice',
    ADD KEY IF NOT EXISTS riders_address (address);
CREATE TABLE IF NOT EXISTS recovery_codes (
    rider_id CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    code     BINARY(32) NOT NULL COMMENT 'a hash; a row goes when it is used',
    PRIMARY KEY (rider_id, code),
    CONSTRAINT recovery_codes_rider FOREIGN KEY (rider_id) REFERENCES riders (id)
) ENGINE = InnoDB DEFAULT CHARACTER SET = utf8mb4 COLLATE = utf8mb4_unicode_ci;
CREATE TABLE IF NOT EXISTS links (
    token      BINARY(32) NOT NULL COMMENT 'a hash of what the letter holds',
    rider_id   CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    kind       VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL COMMENT 'what it does, once',
    address    VARCHAR(254) NOT NULL COMMENT 'that it was sent to',
    expires_at DATETIME(6) NOT NULL,
    PRIMARY KEY (token),
    KEY links_rider (rider_id, kind),
    CONSTRAINT links_rider FOREIGN KEY (rider_id) REFERENCES riders (id)
) ENGINE = InnoDB DEFAULT CHARACTER SET = utf8mb4 COLLATE = utf8mb4_unicode_ci;
CREATE TABLE IF NOT EXISTS trail (
    id       BIGINT UNSIGNED NOT NULL AUTO_INCREMENT,
    rider_id CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    made_at  DATETIME(6) NOT NULL,
    what     VARCHAR(200) NOT NULL,
    address  VARCHAR(60) NOT NULL COMMENT 'that it came from',
    PRIMARY KEY (id),
    KEY trail_rider (rider_id, id),
    CONSTRAINT trail_rider FOREIGN KEY (rider_id) REFERENCES riders (id)
) ENGINE = InnoDB DEFAULT CHARACTER SET = utf8mb4 COLLATE = utf8mb4_unicode_ci;
