-- Flights and what belongs to them: aggregates of their own beside the builds, taken back by build. `at` is when it happened,
-- local day and time.
CREATE TABLE flights (
  id       TEXT PRIMARY KEY CHECK (length(id) BETWEEN 1 AND 64),
  build_id TEXT NOT NULL REFERENCES builds (id) ON DELETE CASCADE,
  at       TEXT NOT NULL,
  value    TEXT NOT NULL CHECK (json_valid(value))
) STRICT;
CREATE INDEX flights_by_build ON flights (build_id, at);

-- What was found on them.
CREATE TABLE findings (
  id       TEXT PRIMARY KEY CHECK (length(id) BETWEEN 1 AND 64),
  build_id TEXT NOT NULL REFERENCES builds (id) ON DELETE CASCADE,
  at       TEXT NOT NULL,
  value    TEXT NOT NULL CHECK (json_valid(value))
) STRICT;
CREATE INDEX findings_by_build ON findings (build_id, at);

-- A new part in the place of an old one: flights count for it from then on.
CREATE TABLE renewals (
  id       TEXT PRIMARY KEY CHECK (length(id) BETWEEN 1 AND 64),
  build_id TEXT NOT NULL REFERENCES builds (id) ON DELETE CASCADE,
  at       TEXT NOT NULL,
  value    TEXT NOT NULL CHECK (json_valid(value))
) STRICT;
CREATE INDEX renewals_by_build ON renewals (build_id, at);

-- Configurations of a craft, each as it was one day.
CREATE TABLE settings_records (
  id       TEXT PRIMARY KEY CHECK (length(id) BETWEEN 1 AND 64),
  build_id TEXT NOT NULL REFERENCES builds (id) ON DELETE CASCADE,
  at       TEXT NOT NULL,
  value    TEXT NOT NULL CHECK (json_valid(value))
) STRICT;
CREATE INDEX settings_records_by_build ON settings_records (build_id, at);

-- The journal of what is kept outside the builds gains their document, and the build an entry is about.
CREATE TABLE kept_journal_next (
  seq      INTEGER PRIMARY KEY AUTOINCREMENT,
  document TEXT NOT NULL CHECK (document IN ('drawer', 'rules', 'scales', 'templates', 'settings', 'flights')),
  scope    TEXT NOT NULL DEFAULT '',
  at       TEXT NOT NULL,
  title    TEXT NOT NULL,
  key      TEXT,
  undone   TEXT NOT NULL CHECK (undone IN ('in force', 'taken back', 'overtaken')),
  changes  TEXT NOT NULL CHECK (json_valid(changes))
) STRICT;
INSERT INTO kept_journal_next (seq, document, at, title, key, undone, changes)
SELECT seq, document, at, title, key, undone, changes FROM kept_journal;
DROP TABLE kept_journal;
ALTER TABLE kept_journal_next RENAME TO kept_journal;
CREATE UNIQUE INDEX kept_journal_by_key ON kept_journal (document, key) WHERE key IS NOT NULL;
CREATE INDEX kept_journal_by_document ON kept_journal (document, scope, seq);
