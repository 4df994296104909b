-- +goose Up
ALTER TABLE plans
    ADD COLUMN family_id CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NULL COMMENT 'the first of a plan and its variants; null: no variants',
    ADD KEY plans_family (family_id),
    ADD CONSTRAINT plans_family FOREIGN KEY (family_id) REFERENCES plans (id);
