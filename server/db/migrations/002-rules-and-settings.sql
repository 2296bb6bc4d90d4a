-- Cards the builder added or copied; the starting cards ship with the application.
CREATE TABLE own_cards (
  id       TEXT PRIMARY KEY CHECK (length(id) BETWEEN 1 AND 64),
  position INTEGER NOT NULL,
  card     TEXT NOT NULL CHECK (json_valid(card))
) STRICT;

-- The day on which the builder confirmed a card with the authority.
CREATE TABLE card_verifications (
  card_id     TEXT PRIMARY KEY,
  verified_on TEXT NOT NULL CHECK (verified_on GLOB '[0-9][0-9][0-9][0-9]-[0-9][0-9]-[0-9][0-9]')
) STRICT;

CREATE TABLE settings (
  id    INTEGER PRIMARY KEY CHECK (id = 1),
  value TEXT NOT NULL CHECK (json_valid(value))
) STRICT;
