-- How a build is flown: style, air, reserve, cards of a trip, loadouts that are over on purpose.
ALTER TABLE builds ADD COLUMN flying TEXT CHECK (flying IS NULL OR json_valid(flying));
