-- What could take grams off a build, and what a plan should spare.
ALTER TABLE builds ADD COLUMN shave TEXT CHECK (shave IS NULL OR json_valid(shave));
