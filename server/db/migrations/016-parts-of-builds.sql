-- Parts of a build that are there or not lie in rows of their own, each with the version it was written in.
CREATE TABLE build_parts (
  build_id TEXT NOT NULL REFERENCES builds (id) ON DELETE CASCADE,
  field    TEXT NOT NULL,
  version  INTEGER NOT NULL CHECK (version > 0),
  value    TEXT NOT NULL CHECK (json_valid(value)),
  PRIMARY KEY (build_id, field)
) STRICT, WITHOUT ROWID;

INSERT INTO build_parts (build_id, field, version, value) SELECT id, 'fit', 1, fit FROM builds WHERE fit IS NOT NULL;
INSERT INTO build_parts (build_id, field, version, value) SELECT id, 'flying', 1, flying FROM builds WHERE flying IS NOT NULL;
INSERT INTO build_parts (build_id, field, version, value) SELECT id, 'shave', 1, shave FROM builds WHERE shave IS NOT NULL;
INSERT INTO build_parts (build_id, field, version, value) SELECT id, 'assembly', 1, assembly FROM builds WHERE assembly IS NOT NULL;
ALTER TABLE builds DROP COLUMN fit;
ALTER TABLE builds DROP COLUMN flying;
ALTER TABLE builds DROP COLUMN shave;
ALTER TABLE builds DROP COLUMN assembly;

-- In which version each part of a build was when an entry of the journal was written. The first is of all that was written before.
CREATE TABLE vintages (
  id       INTEGER PRIMARY KEY,
  versions TEXT NOT NULL UNIQUE CHECK (json_valid(versions))
) STRICT;
INSERT INTO vintages (id, versions)
VALUES (1, '{"head":1,"lines":1,"setups":1,"loadouts":1,"observations":1,"fit":1,"flying":1,"shave":1,"assembly":1}');
ALTER TABLE journal ADD COLUMN vintage INTEGER NOT NULL DEFAULT 1;
