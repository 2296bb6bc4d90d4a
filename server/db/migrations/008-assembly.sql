-- How a build is put together, and what was done of it.
ALTER TABLE builds ADD COLUMN assembly TEXT CHECK (assembly IS NULL OR json_valid(assembly));

-- Ways of building the builder keeps for any build.
CREATE TABLE assembly_templates (
  id TEXT PRIMARY KEY,
  name TEXT NOT NULL CHECK (length(name) BETWEEN 1 AND 120),
  value TEXT NOT NULL CHECK (json_valid(value))
) STRICT;
