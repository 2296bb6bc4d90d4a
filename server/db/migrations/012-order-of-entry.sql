-- What became known is told in the order it was entered: a clock that is put back does not turn history round.
ALTER TABLE mass_versions ADD COLUMN entry INTEGER;
UPDATE mass_versions
SET entry = ranked.place
FROM (SELECT build_id, id, row_number() OVER (PARTITION BY build_id ORDER BY made_at, id) AS place FROM mass_versions) AS ranked
WHERE ranked.build_id = mass_versions.build_id AND ranked.id = mass_versions.id;

ALTER TABLE part_versions ADD COLUMN entry INTEGER;
UPDATE part_versions
SET entry = ranked.place
FROM (SELECT part_id, id, row_number() OVER (PARTITION BY part_id ORDER BY made_at, id) AS place FROM part_versions) AS ranked
WHERE ranked.part_id = part_versions.part_id AND ranked.id = part_versions.id;
