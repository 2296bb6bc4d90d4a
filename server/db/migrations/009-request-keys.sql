-- Every write carries a key of its own, so that one whose answer was lost can be sent again without being done twice.
-- A key is the place it was typed at and a number, with a dot between. It is looked for among the entries since the
-- revision the write has seen, which are few: it needs no index, and costs a write nothing.
ALTER TABLE journal ADD COLUMN key TEXT;
