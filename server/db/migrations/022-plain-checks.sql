-- A list of three or more values in a check is made into a table of its own for every row that is written; the same values one
-- by one are compared where they stand. The journal and the versions of grams are written with every edit: they are made anew
-- with such checks, and without the index by topic, which nothing that is asked of the journal makes use of.
CREATE TABLE journal_next (
  build_id       TEXT NOT NULL REFERENCES builds (id) ON DELETE CASCADE,
  seq            INTEGER NOT NULL CHECK (seq >= 1),
  at             TEXT NOT NULL,
  kind           TEXT NOT NULL CHECK (kind = 'do' OR kind = 'undo' OR kind = 'redo'),
  target         INTEGER,
  title          TEXT NOT NULL,
  grams_before_g REAL,
  grams_after_g  REAL,
  auw_before_g   REAL NOT NULL,
  auw_after_g    REAL NOT NULL,
  note           TEXT NOT NULL,
  undone         TEXT NOT NULL CHECK (undone = 'in force' OR undone = 'taken back' OR undone = 'overtaken'),
  patch          TEXT NOT NULL CHECK (json_valid(patch)),
  key            TEXT,
  vintage        INTEGER NOT NULL DEFAULT 1,
  topic          TEXT NOT NULL DEFAULT 'aim',
  mark           TEXT NOT NULL DEFAULT '',
  CHECK ((kind = 'do') = (target IS NULL)),
  PRIMARY KEY (build_id, seq)
) STRICT;
INSERT INTO journal_next (build_id, seq, at, kind, target, title, grams_before_g, grams_after_g, auw_before_g, auw_after_g,
                          note, undone, patch, key, vintage, topic, mark)
SELECT build_id, seq, at, kind, target, title, grams_before_g, grams_after_g, auw_before_g, auw_after_g,
       note, undone, patch, key, vintage, topic, mark
FROM journal
ORDER BY rowid;
DROP TABLE journal;
ALTER TABLE journal_next RENAME TO journal;
CREATE TRIGGER journal_keeps_entries BEFORE UPDATE OF seq, at, kind, target, title, patch, auw_after_g ON journal
BEGIN
  SELECT RAISE(ABORT, 'journal entries are not rewritten');
END;
CREATE INDEX journal_marks ON journal (build_id, seq) WHERE mark <> '';

CREATE TABLE mass_versions_next (
  build_id       TEXT NOT NULL REFERENCES builds (id) ON DELETE CASCADE,
  id             TEXT NOT NULL,
  line_id        TEXT NOT NULL,
  made_at        TEXT NOT NULL,
  evidence       TEXT NOT NULL CHECK (evidence = 'guess' OR evidence = 'typical' OR evidence = 'listed' OR
                                      evidence = 'worked out' OR evidence = 'twin' OR evidence = 'weighed'),
  value_g        REAL NOT NULL CHECK (value_g BETWEEN 0 AND 10000),
  value_count    INTEGER NOT NULL CHECK (value_count BETWEEN 1 AND 999),
  resolution_g   REAL NOT NULL CHECK (resolution_g >= 0),
  piece_readings TEXT CHECK (piece_readings IS NULL OR json_valid(piece_readings)),
  half_range_g   REAL CHECK (half_range_g >= 0),
  own_spread_g   REAL CHECK (own_spread_g >= 0),
  basis          TEXT NOT NULL CHECK (basis = 'as supplied' OR basis = 'as fitted'),
  origin         TEXT NOT NULL,
  weighing       TEXT CHECK (weighing IS NULL OR json_valid(weighing)),
  entry          INTEGER,
  PRIMARY KEY (build_id, id)
) STRICT, WITHOUT ROWID;
INSERT INTO mass_versions_next (build_id, id, line_id, made_at, evidence, value_g, value_count, resolution_g, piece_readings,
                                half_range_g, own_spread_g, basis, origin, weighing, entry)
SELECT build_id, id, line_id, made_at, evidence, value_g, value_count, resolution_g, piece_readings,
       half_range_g, own_spread_g, basis, origin, weighing, entry
FROM mass_versions;
DROP TABLE mass_versions;
ALTER TABLE mass_versions_next RENAME TO mass_versions;
