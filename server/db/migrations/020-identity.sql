-- Which data these are: edits that were typed on others are not written here. A restored archive gets a name of its own.
CREATE TABLE identity (
  one INTEGER PRIMARY KEY CHECK (one = 1),
  id  TEXT NOT NULL CHECK (length(id) BETWEEN 16 AND 64)
) STRICT;
INSERT INTO identity (one, id) VALUES (1, lower(hex(randomblob(16))));
