-- Which piece a line is by now, and the weighings of it beside the estimate it stands on.
ALTER TABLE lines ADD COLUMN edition INTEGER NOT NULL DEFAULT 0 CHECK (edition >= 0);
ALTER TABLE lines ADD COLUMN further TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(further));
