-- Every change of what is kept outside the builds (drawer, rules, scales, templates, settings): what it was, what it became,
-- the key of the write, and whether it is in force. Taken back by document.
CREATE TABLE kept_journal (
  seq      INTEGER PRIMARY KEY AUTOINCREMENT,
  document TEXT NOT NULL CHECK (document IN ('drawer', 'rules', 'scales', 'templates', 'settings')),
  at       TEXT NOT NULL,
  title    TEXT NOT NULL,
  key      TEXT,
  undone   TEXT NOT NULL CHECK (undone IN ('in force', 'taken back', 'overtaken')),
  changes  TEXT NOT NULL CHECK (json_valid(changes))
) STRICT;
CREATE UNIQUE INDEX kept_journal_by_key ON kept_journal (document, key) WHERE key IS NOT NULL;
CREATE INDEX kept_journal_by_document ON kept_journal (document, seq);
