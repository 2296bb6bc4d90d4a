-- A mass weighed on one of the builder's scales keeps how: scale, check in force, raw displays, tare, causes.
ALTER TABLE mass_versions ADD COLUMN weighing TEXT CHECK (weighing IS NULL OR json_valid(weighing));

-- Weighings of several lines together: a stage, the dry aircraft, everything.
CREATE TABLE observations (
  build_id    TEXT NOT NULL REFERENCES builds (id) ON DELETE CASCADE,
  id          TEXT NOT NULL,
  position    INTEGER NOT NULL,
  state       TEXT NOT NULL CHECK (state IN ('taken in', 'held', 'set aside')),
  value_g     REAL NOT NULL CHECK (value_g BETWEEN 0 AND 10000),
  observation TEXT NOT NULL CHECK (json_valid(observation)),
  PRIMARY KEY (build_id, id)
) STRICT, WITHOUT ROWID;

-- The builder's scales, outside the builds.
CREATE TABLE scales (
  id                  TEXT PRIMARY KEY CHECK (length(id) BETWEEN 1 AND 64),
  name                TEXT NOT NULL CHECK (length(trim(name)) BETWEEN 1 AND 120),
  resolution_g        REAL NOT NULL CHECK (resolution_g > 0),
  capacity_g          REAL NOT NULL CHECK (capacity_g > 0 AND capacity_g <= 10000),
  repeatability_g     REAL CHECK (repeatability_g > 0),
  check_interval_days INTEGER NOT NULL CHECK (check_interval_days BETWEEN 1 AND 3650),
  made_at             TEXT NOT NULL
) STRICT;

CREATE TABLE reference_masses (
  id          TEXT PRIMARY KEY CHECK (length(id) BETWEEN 1 AND 64),
  name        TEXT NOT NULL CHECK (length(trim(name)) BETWEEN 1 AND 120),
  mass_g      REAL NOT NULL CHECK (mass_g > 0 AND mass_g <= 10000),
  tolerance_g REAL NOT NULL CHECK (tolerance_g >= 0),
  coin        INTEGER NOT NULL CHECK (coin IN (0, 1)),
  made_at     TEXT NOT NULL
) STRICT;

-- Checks are kept for good: past weighings refer to the one that was in force.
CREATE TABLE scale_checks (
  id       TEXT PRIMARY KEY CHECK (length(id) BETWEEN 1 AND 64),
  scale_id TEXT NOT NULL REFERENCES scales (id) ON DELETE CASCADE,
  taken_at TEXT NOT NULL,
  placings TEXT NOT NULL CHECK (json_valid(placings))
) STRICT;
CREATE INDEX scale_checks_by_scale ON scale_checks (scale_id, taken_at);

-- Trays and boxes by name, with what they showed.
CREATE TABLE tares (
  id        TEXT PRIMARY KEY CHECK (length(id) BETWEEN 1 AND 64),
  name      TEXT NOT NULL CHECK (length(trim(name)) BETWEEN 1 AND 120),
  scale_id  TEXT NOT NULL REFERENCES scales (id) ON DELETE CASCADE,
  display_g REAL NOT NULL,
  taken_at  TEXT NOT NULL
) STRICT;
