CREATE TABLE builds (
  id                 TEXT PRIMARY KEY CHECK (length(id) BETWEEN 1 AND 64),
  name               TEXT NOT NULL CHECK (length(trim(name)) BETWEEN 1 AND 120),
  craft_class        TEXT NOT NULL,
  archived           INTEGER NOT NULL CHECK (archived IN (0, 1)),
  revision           INTEGER NOT NULL CHECK (revision >= 1),
  created_at         TEXT NOT NULL,
  purpose            TEXT NOT NULL,
  purpose_kind       TEXT NOT NULL CHECK (purpose_kind IN ('recreation', 'other')),
  places             TEXT NOT NULL CHECK (json_valid(places)),
  card_ids           TEXT NOT NULL CHECK (json_valid(card_ids)),
  reserve_g          REAL NOT NULL CHECK (reserve_g BETWEEN 0 AND 10000),
  confidence         REAL NOT NULL CHECK (confidence >= 0.5 AND confidence < 1),
  goal_dry_g         REAL CHECK (goal_dry_g BETWEEN 0 AND 10000),
  goal_minutes       REAL CHECK (goal_minutes >= 0),
  goal_price_cents   INTEGER CHECK (goal_price_cents >= 0),
  flies_setup_id     TEXT NOT NULL,
  flies_pack_line_id TEXT
) STRICT;

-- A craft known only as a whole, to compare with.
CREATE TABLE reference_crafts (
  build_id    TEXT PRIMARY KEY REFERENCES builds (id) ON DELETE CASCADE,
  mass_g      REAL NOT NULL CHECK (mass_g BETWEEN 0 AND 10000),
  spread_g    REAL NOT NULL CHECK (spread_g >= 0),
  thrust_g    REAL CHECK (thrust_g >= 0),
  price_cents INTEGER CHECK (price_cents >= 0),
  minutes     REAL CHECK (minutes >= 0)
) STRICT;

-- Every version of a line's grams, kept even when the line is gone: undo and history refer to it.
CREATE TABLE mass_versions (
  build_id       TEXT NOT NULL REFERENCES builds (id) ON DELETE CASCADE,
  id             TEXT NOT NULL,
  line_id        TEXT NOT NULL,
  made_at        TEXT NOT NULL,
  evidence       TEXT NOT NULL CHECK (evidence IN ('guess', 'typical', 'listed', 'worked out', 'weighed')),
  value_g        REAL NOT NULL CHECK (value_g BETWEEN 0 AND 10000),
  value_count    INTEGER NOT NULL CHECK (value_count BETWEEN 1 AND 999),
  resolution_g   REAL NOT NULL CHECK (resolution_g >= 0),
  piece_readings TEXT CHECK (piece_readings IS NULL OR json_valid(piece_readings)),
  half_range_g   REAL CHECK (half_range_g >= 0),
  own_spread_g   REAL CHECK (own_spread_g >= 0),
  basis          TEXT NOT NULL CHECK (basis IN ('as supplied', 'as fitted')),
  origin         TEXT NOT NULL,
  PRIMARY KEY (build_id, id)
) STRICT, WITHOUT ROWID;

CREATE TABLE lines (
  build_id             TEXT NOT NULL REFERENCES builds (id) ON DELETE CASCADE,
  id                   TEXT NOT NULL,
  position             INTEGER NOT NULL,
  slot                 TEXT NOT NULL,
  name                 TEXT NOT NULL CHECK (length(trim(name)) BETWEEN 1 AND 120),
  quantity             INTEGER NOT NULL CHECK (quantity BETWEEN 1 AND 999),
  mass_version_id      TEXT,
  listing_g            REAL CHECK (listing_g BETWEEN 0 AND 10000),
  listing_resolution_g REAL CHECK (listing_resolution_g >= 0),
  state                TEXT NOT NULL CHECK (state IN ('fitted', 'candidate', 'off')),
  role                 TEXT NOT NULL CHECK (role IN ('airframe', 'fitting', 'payload')),
  removable            INTEGER NOT NULL CHECK (removable IN (0, 1)),
  price_each_cents     INTEGER CHECK (price_each_cents >= 0),
  note                 TEXT NOT NULL,
  tie                  TEXT,
  instead_of           TEXT,
  CHECK ((listing_g IS NULL) = (listing_resolution_g IS NULL)),
  PRIMARY KEY (build_id, id),
  FOREIGN KEY (build_id, mass_version_id) REFERENCES mass_versions (build_id, id)
) STRICT, WITHOUT ROWID;

-- What a line in the pack slot is apart from its grams.
CREATE TABLE packs (
  build_id     TEXT NOT NULL,
  line_id      TEXT NOT NULL,
  label        TEXT NOT NULL CHECK (length(trim(label)) >= 1),
  cells        INTEGER NOT NULL CHECK (cells BETWEEN 1 AND 14),
  chemistry    TEXT NOT NULL CHECK (chemistry IN ('LiPo', 'LiHV', 'Li-ion')),
  capacity_mah REAL NOT NULL CHECK (capacity_mah > 0),
  c_rating     REAL CHECK (c_rating > 0),
  plug         TEXT NOT NULL,
  PRIMARY KEY (build_id, line_id),
  FOREIGN KEY (build_id, line_id) REFERENCES lines (build_id, id) ON DELETE CASCADE
) STRICT, WITHOUT ROWID;

CREATE TABLE setups (
  build_id TEXT NOT NULL REFERENCES builds (id) ON DELETE CASCADE,
  id       TEXT NOT NULL,
  position INTEGER NOT NULL,
  name     TEXT NOT NULL CHECK (length(trim(name)) BETWEEN 1 AND 120),
  PRIMARY KEY (build_id, id)
) STRICT, WITHOUT ROWID;

CREATE TABLE setup_lines (
  build_id TEXT NOT NULL,
  setup_id TEXT NOT NULL,
  line_id  TEXT NOT NULL,
  position INTEGER NOT NULL,
  PRIMARY KEY (build_id, setup_id, line_id),
  FOREIGN KEY (build_id, setup_id) REFERENCES setups (build_id, id) ON DELETE CASCADE,
  FOREIGN KEY (build_id, line_id) REFERENCES lines (build_id, id) ON DELETE CASCADE
) STRICT, WITHOUT ROWID;

-- Loadouts the builder never flies.
CREATE TABLE never_flown (
  build_id     TEXT NOT NULL REFERENCES builds (id) ON DELETE CASCADE,
  position     INTEGER NOT NULL,
  setup_id     TEXT NOT NULL,
  pack_line_id TEXT,
  PRIMARY KEY (build_id, position)
) STRICT, WITHOUT ROWID;

-- Append-only, but for the note and for whether a change is in force. Rows are long, so they lie in order of writing.
CREATE TABLE journal (
  build_id       TEXT NOT NULL REFERENCES builds (id) ON DELETE CASCADE,
  seq            INTEGER NOT NULL CHECK (seq >= 1),
  at             TEXT NOT NULL,
  kind           TEXT NOT NULL CHECK (kind IN ('do', 'undo', 'redo')),
  target         INTEGER,
  title          TEXT NOT NULL,
  grams_before_g REAL,
  grams_after_g  REAL,
  auw_before_g   REAL NOT NULL,
  auw_after_g    REAL NOT NULL,
  note           TEXT NOT NULL,
  undone         TEXT NOT NULL CHECK (undone IN ('in force', 'taken back', 'overtaken')),
  patch          TEXT NOT NULL CHECK (json_valid(patch)),
  CHECK ((kind = 'do') = (target IS NULL)),
  PRIMARY KEY (build_id, seq)
) STRICT;

CREATE TRIGGER journal_keeps_entries BEFORE UPDATE OF seq, at, kind, target, title, patch, auw_after_g ON journal
BEGIN
  SELECT RAISE(ABORT, 'journal entries are not rewritten');
END;
