-- Weighings of several lines and reference crafts keep pictures, too; a reference craft has a note.
ALTER TABLE reference_crafts ADD COLUMN note TEXT NOT NULL DEFAULT '';
ALTER TABLE reference_crafts ADD COLUMN picture_ids TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(picture_ids));
UPDATE observations SET observation = json_set(observation, '$.pictureIds', json('[]'))
WHERE json_type(observation, '$.pictureIds') IS NULL;
