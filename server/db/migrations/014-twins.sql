-- A line may be known as the twin of a piece that was weighed on another build.
CREATE TABLE mass_versions_anew (
  build_id       TEXT NOT NULL REFERENCES builds (id) ON DELETE CASCADE,
  id             TEXT NOT NULL,
  line_id        TEXT NOT NULL,
  made_at        TEXT NOT NULL,
  evidence       TEXT NOT NULL CHECK (evidence IN ('guess', 'typical', 'listed', 'worked out', 'twin', 'weighed')),
  value_g        REAL NOT NULL CHECK (value_g BETWEEN 0 AND 10000),
  value_count    INTEGER NOT NULL CHECK (value_count BETWEEN 1 AND 999),
  resolution_g   REAL NOT NULL CHECK (resolution_g >= 0),
  piece_readings TEXT CHECK (piece_readings IS NULL OR json_valid(piece_readings)),
  half_range_g   REAL CHECK (half_range_g >= 0),
  own_spread_g   REAL CHECK (own_spread_g >= 0),
  basis          TEXT NOT NULL CHECK (basis IN ('as supplied', 'as fitted')),
  origin         TEXT NOT NULL,
  weighing       TEXT CHECK (weighing IS NULL OR json_valid(weighing)),
  entry          INTEGER,
  PRIMARY KEY (build_id, id)
) STRICT, WITHOUT ROWID;

INSERT INTO mass_versions_anew (build_id, id, line_id, made_at, evidence, value_g, value_count, resolution_g, piece_readings, half_range_g, own_spread_g, basis, origin, weighing, entry)
SELECT build_id, id, line_id, made_at, evidence, value_g, value_count, resolution_g, piece_readings, half_range_g, own_spread_g, basis, origin, weighing, entry
FROM mass_versions;

DROP TABLE mass_versions;
ALTER TABLE mass_versions_anew RENAME TO mass_versions;
