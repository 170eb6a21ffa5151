-- Pictures that were put in: their pixels lie in the object store, under pictures/<id>/.
CREATE TABLE pictures (
    id uuid PRIMARY KEY,
    team_id uuid NOT NULL REFERENCES teams (id),
    name text NOT NULL,
    width integer NOT NULL,
    height integer NOT NULL,
    bytes bigint NOT NULL,
    made_by text NOT NULL,
    made_at timestamptz NOT NULL DEFAULT now(),
    UNIQUE (team_id, id)
);

-- The picture that a sketch was read from, or laid over.
ALTER TABLE sketches ADD COLUMN picture_id uuid;
ALTER TABLE sketches ADD FOREIGN KEY (team_id, picture_id) REFERENCES pictures (team_id, id);
CREATE INDEX sketches_of_picture ON sketches (picture_id);
