-- +goose Up
ALTER TABLE plans
    ADD COLUMN IF NOT EXISTS family_id CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NULL COMMENT 'the first of a plan and its variants; null: no variants',
    ADD KEY IF NOT EXISTS plans_family (family_id),
    ADD CONSTRAINT plans_family FOREIGN KEY IF NOT EXISTS (family_id) REFERENCES plans (id);
