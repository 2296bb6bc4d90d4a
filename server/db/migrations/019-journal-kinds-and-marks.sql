-- What an entry is about, so that the journal can be read by kind, and a builder's own mark on it.
ALTER TABLE journal ADD COLUMN topic TEXT NOT NULL DEFAULT 'aim';
ALTER TABLE journal ADD COLUMN mark TEXT NOT NULL DEFAULT '';

-- As the application says it of what is written from now on.
WITH touched AS (
  SELECT
    build_id, seq,
    coalesce(
      (SELECT substr(json_extract(value, '$.list'), 1, instr(json_extract(value, '$.list') || '.', '.') - 1)
         FROM json_each(patch, '$.lists') LIMIT 1),
      json_extract(patch, '$.parts[0].part'),
      (SELECT key FROM json_each(patch, '$.head.after') LIMIT 1),
      iif(json_type(patch, '$.setups') = 'object', 'setups', NULL),
      ''
    ) AS field,
    EXISTS (SELECT 1 FROM json_each(patch, '$.lists') WHERE json_extract(value, '$.list') = 'observations')
      OR json_type(patch, '$.head.after.observations') IS NOT NULL AS weighed
  FROM journal
)
UPDATE journal
SET topic = CASE
  WHEN grams_before_g IS NOT NULL OR grams_after_g IS NOT NULL THEN 'grams'
  WHEN touched.weighed THEN 'weighings'
  WHEN coalesce(json_array_length(patch, '$.lines'), 0) > 0 OR coalesce(json_type(patch, '$.order'), 'null') <> 'null'
    THEN 'parts'
  WHEN touched.field IN ('setups', 'neverFlown', 'flies') THEN 'loadouts'
  WHEN touched.field IN ('fit', 'flying', 'assembly') THEN touched.field
  WHEN touched.field = 'shave' THEN 'shaving'
  WHEN touched.field = 'places' THEN 'balance'
  ELSE 'aim'
END
FROM touched
WHERE touched.build_id = journal.build_id AND touched.seq = journal.seq;

CREATE INDEX journal_topic ON journal (build_id, topic, seq);
CREATE INDEX journal_marks ON journal (build_id, seq) WHERE mark <> '';
