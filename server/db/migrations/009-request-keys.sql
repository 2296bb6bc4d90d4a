-- Every write carries a key of its own, so that one whose answer was lost can be sent again without being done twice.
-- A key is the place it was typed at and a number, with a dot between.
ALTER TABLE journal ADD COLUMN key TEXT;
CREATE UNIQUE INDEX journal_by_key ON journal (build_id, key) WHERE key IS NOT NULL;
