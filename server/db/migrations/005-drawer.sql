-- What a line's part really is, which part of the drawer it is, where its power comes from; how a build goes together.
ALTER TABLE lines ADD COLUMN properties TEXT CHECK (properties IS NULL OR json_valid(properties));
ALTER TABLE lines ADD COLUMN part_id TEXT;
ALTER TABLE lines ADD COLUMN feed TEXT CHECK (feed IS NULL OR json_valid(feed));
ALTER TABLE builds ADD COLUMN fit TEXT CHECK (fit IS NULL OR json_valid(fit));
CREATE INDEX lines_by_part ON lines (part_id) WHERE part_id IS NOT NULL;

-- One purchase that became many pieces.
CREATE TABLE kits (
  id          TEXT PRIMARY KEY CHECK (length(id) BETWEEN 1 AND 64),
  name        TEXT NOT NULL CHECK (length(trim(name)) BETWEEN 1 AND 120),
  price_cents INTEGER CHECK (price_cents >= 0),
  link        TEXT NOT NULL,
  note        TEXT NOT NULL,
  leaves_out  TEXT NOT NULL
) STRICT;

-- What the builder owns or has looked at. How many lie in the drawer follows from owned, lost, scrapped and the lines that name the part.
CREATE TABLE parts (
  id                   TEXT PRIMARY KEY CHECK (length(id) BETWEEN 1 AND 64),
  slot                 TEXT NOT NULL,
  name                 TEXT NOT NULL CHECK (length(trim(name)) BETWEEN 1 AND 120),
  properties           TEXT CHECK (properties IS NULL OR json_valid(properties)),
  listing_g            REAL CHECK (listing_g BETWEEN 0 AND 10000),
  listing_resolution_g REAL CHECK (listing_resolution_g >= 0),
  mass                 TEXT CHECK (mass IS NULL OR json_valid(mass)),
  mass_made_at         TEXT,
  mass_came            TEXT,
  pack                 TEXT CHECK (pack IS NULL OR json_valid(pack)),
  price_cents          INTEGER CHECK (price_cents >= 0),
  sold_in              INTEGER NOT NULL CHECK (sold_in BETWEEN 1 AND 999),
  owned                INTEGER NOT NULL CHECK (owned BETWEEN 0 AND 99999),
  lost                 INTEGER NOT NULL CHECK (lost >= 0),
  scrapped             INTEGER NOT NULL CHECK (scrapped >= 0),
  missing              INTEGER NOT NULL CHECK (missing >= 0),
  kit_id               TEXT REFERENCES kits (id) ON DELETE SET NULL,
  bag                  TEXT NOT NULL,
  link                 TEXT NOT NULL,
  note                 TEXT NOT NULL,
  tags                 TEXT NOT NULL CHECK (json_valid(tags)),
  CHECK ((listing_g IS NULL) = (listing_resolution_g IS NULL)),
  CHECK ((mass IS NULL) = (mass_made_at IS NULL) AND (mass IS NULL) = (mass_came IS NULL)),
  CHECK (lost + scrapped <= owned)
) STRICT;

-- Earlier versions of a part's grams, with the words that say where they came from; the present one is with the part.
CREATE TABLE part_versions (
  part_id TEXT NOT NULL REFERENCES parts (id) ON DELETE CASCADE,
  id      TEXT NOT NULL,
  made_at TEXT NOT NULL,
  came    TEXT NOT NULL,
  mass    TEXT NOT NULL CHECK (json_valid(mass)),
  PRIMARY KEY (part_id, id)
) STRICT, WITHOUT ROWID;

-- Lines that went from a build to another or to the drawer, by the journal entries that tell of it: one is taken back with the other.
CREATE TABLE hand_overs (
  id           TEXT PRIMARY KEY,
  from_build   TEXT NOT NULL REFERENCES builds (id) ON DELETE CASCADE,
  from_seq     INTEGER NOT NULL,
  to_build     TEXT REFERENCES builds (id) ON DELETE CASCADE,
  to_seq       INTEGER,
  parts_before TEXT NOT NULL CHECK (json_valid(parts_before)),
  parts_after  TEXT NOT NULL CHECK (json_valid(parts_after)),
  CHECK ((to_build IS NULL) = (to_seq IS NULL))
) STRICT;

-- How the columns of a file with these heads were understood last time.
CREATE TABLE column_mappings (
  heads   TEXT PRIMARY KEY,
  mapping TEXT NOT NULL CHECK (json_valid(mapping))
) STRICT;
