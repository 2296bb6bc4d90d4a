-- What the server keeps to itself: the hash of the passphrase for the network, the key that seals its cookies.
CREATE TABLE secrets (
  name  TEXT PRIMARY KEY CHECK (length(name) BETWEEN 1 AND 64),
  value TEXT NOT NULL
) STRICT;
