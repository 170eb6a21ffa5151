-- Every object in the store: whose it is, how large, what is in it, and how many things use it. What is used by nothing is swept after a day.
CREATE TABLE files (
    name text PRIMARY KEY,
    team_id uuid NOT NULL REFERENCES teams (id),
    kind text NOT NULL,
    media_type text NOT NULL,
    -- Of what came in before files had rows the hash is not known, and the size only of all forms together.
    sha256 bytea,
    bytes bigint NOT NULL CHECK (bytes >= 0),
    uses integer NOT NULL DEFAULT 1 CHECK (uses >= 0),
    made_at timestamptz NOT NULL DEFAULT now(),
    unused_since timestamptz,
    UNIQUE (team_id, sha256, kind)
);
CREATE INDEX files_unused ON files (unused_since) WHERE uses = 0;
CREATE INDEX files_of_team ON files (team_id) INCLUDE (bytes);

INSERT INTO files (name, team_id, kind, media_type, bytes, made_at)
    SELECT 'pictures/' || id || '/' || form || '.jpg', team_id, form, CASE WHEN form = 'original' THEN media_type ELSE 'image/jpeg' END,
        CASE WHEN form = 'original' THEN bytes ELSE 0 END, made_at
    FROM pictures CROSS JOIN (VALUES ('original'), ('view'), ('thumb')) AS forms (form);
INSERT INTO files (name, team_id, kind, media_type, bytes, made_at)
    SELECT 'lifts/' || id || '.jpg', team_id, 'lift', 'image/jpeg', 0, made_at FROM lifts;

ALTER TABLE pictures ADD COLUMN original text REFERENCES files (name);
ALTER TABLE pictures ADD COLUMN view text REFERENCES files (name);
ALTER TABLE pictures ADD COLUMN thumb text REFERENCES files (name);
UPDATE pictures SET original = 'pictures/' || id || '/original.jpg', view = 'pictures/' || id || '/view.jpg', thumb = 'pictures/' || id || '/thumb.jpg';
ALTER TABLE pictures ALTER COLUMN original SET NOT NULL, ALTER COLUMN view SET NOT NULL, ALTER COLUMN thumb SET NOT NULL;
ALTER TABLE pictures DROP COLUMN bytes, DROP COLUMN media_type;
ALTER TABLE lifts ADD COLUMN page text REFERENCES files (name);
UPDATE lifts SET page = 'lifts/' || id || '.jpg';
ALTER TABLE lifts ALTER COLUMN page SET NOT NULL;
