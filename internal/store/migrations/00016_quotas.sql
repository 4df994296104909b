-- +goose Up
ALTER TABLE heads ADD COLUMN IF NOT EXISTS revisions INT NOT NULL DEFAULT 0 COMMENT 'of the plan, undone ones too';
UPDATE heads h SET h.revisions = (SELECT COUNT(*) FROM revisions r WHERE r.plan_id = h.plan_id);
ALTER TABLE riders ADD COLUMN IF NOT EXISTS bytes BIGINT NOT NULL DEFAULT 0 COMMENT 'of revisions, readings and tracks';
UPDATE riders a SET a.bytes = COALESCE((SELECT SUM(LENGTH(r.document)) FROM plans p JOIN revisions r ON r.plan_id = p.id WHERE p.rider_id = a.id), 0)
    + COALESCE((SELECT SUM(LENGTH(r.document)) FROM plans p JOIN readings r ON r.log_id = p.id WHERE p.rider_id = a.id), 0)
    + COALESCE((SELECT SUM(LENGTH(t.points)) FROM tracks t WHERE t.rider_id = a.id), 0);
