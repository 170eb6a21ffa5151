-- Pictures of a sketch to read, and photos that go on pages, lie in one table; each is offered where it is wanted.
ALTER TABLE pictures ADD COLUMN is_photo boolean NOT NULL DEFAULT false;
CREATE INDEX pictures_of_original ON pictures (team_id, original);
