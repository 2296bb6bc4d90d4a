-- Who is signed in from the network. A session that is not here is over, whatever its cookie says.
CREATE TABLE sessions (
  id      TEXT PRIMARY KEY CHECK (length(id) BETWEEN 16 AND 64),
  made_at TEXT NOT NULL
) STRICT;
