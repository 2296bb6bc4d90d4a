-- Pictures of parts lie as files beside the database; a line and a part name theirs.
ALTER TABLE lines ADD COLUMN picture_ids TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(picture_ids));
ALTER TABLE parts ADD COLUMN picture_ids TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(picture_ids));
