-- Sketches are changed as plans are: each change is a revision, and a write names the one it started from.
ALTER TABLE sketches ADD COLUMN revision integer NOT NULL DEFAULT 1 CHECK (revision >= 1);
CREATE TABLE sketch_revisions (
    sketch_id uuid NOT NULL REFERENCES sketches (id),
    team_id uuid NOT NULL REFERENCES teams (id),
    revision integer NOT NULL CHECK (revision >= 1),
    document jsonb NOT NULL,
    author text NOT NULL,
    reason text NOT NULL,
    made_at timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (sketch_id, revision)
);
INSERT INTO sketch_revisions (sketch_id, team_id, revision, document, author, reason, made_at)
    SELECT id, team_id, 1, document, 'earlier', 'as it lay in the drawer', changed_at FROM sketches;

-- So are a page's name, its due date and whether it is finished or set aside.
ALTER TABLE pages ADD COLUMN details_revision integer NOT NULL DEFAULT 1 CHECK (details_revision >= 1);
CREATE TABLE page_details (
    page_id uuid NOT NULL REFERENCES pages (id),
    team_id uuid NOT NULL REFERENCES teams (id),
    revision integer NOT NULL CHECK (revision >= 1),
    name text NOT NULL,
    due date,
    finished boolean NOT NULL,
    archived boolean NOT NULL,
    author text NOT NULL,
    made_at timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (page_id, revision)
);
INSERT INTO page_details (page_id, team_id, revision, name, due, finished, archived, author, made_at)
    SELECT id, team_id, 1, name, due, finished_at IS NOT NULL, archived_at IS NOT NULL, 'earlier', changed_at FROM pages;

-- A lift is a page brought upright out of a picture: another lift of that picture leaves it as it is. Its pixels lie in the
-- object store, under lifts/<id>.jpg.
CREATE TABLE lifts (
    id uuid PRIMARY KEY,
    team_id uuid NOT NULL REFERENCES teams (id),
    picture_id uuid NOT NULL,
    corners jsonb NOT NULL,
    swatches jsonb NOT NULL,
    made_by text NOT NULL,
    made_at timestamptz NOT NULL DEFAULT now(),
    UNIQUE (team_id, id),
    FOREIGN KEY (team_id, picture_id) REFERENCES pictures (team_id, id)
);
CREATE INDEX lifts_of_picture ON lifts (team_id, picture_id);
ALTER TABLE sketches ADD COLUMN lift_id uuid;
ALTER TABLE sketches ADD FOREIGN KEY (team_id, lift_id) REFERENCES lifts (team_id, id);
CREATE INDEX sketches_of_lift ON sketches (lift_id);

-- Pictures are kept as they were given, without their metadata; earlier ones were encoded anew as JPEG.
ALTER TABLE pictures ADD COLUMN media_type text NOT NULL DEFAULT 'image/jpeg';

-- A link with which one person sets a new password has her id, and leads into no team.
ALTER TABLE links ADD COLUMN person_id uuid REFERENCES people (id);

-- A key belongs to one request: its body's hash is kept with it.
ALTER TABLE done_writes ADD COLUMN body_hash bytea;

-- Which engine computed a layout: what an older one made is made again.
ALTER TABLE page_layouts ADD COLUMN engine integer NOT NULL DEFAULT 0;

-- What the lists are read by.
DROP INDEX sketches_of_team;
CREATE INDEX sketches_in_drawer ON sketches (team_id, made_at, id) WHERE archived_at IS NULL;
CREATE INDEX sketches_set_aside ON sketches (team_id, made_at, id) WHERE archived_at IS NOT NULL;
DROP INDEX pages_of_team;
CREATE INDEX pages_in_making ON pages (team_id, due, changed_at DESC, id) WHERE archived_at IS NULL AND finished_at IS NULL;
CREATE INDEX pages_finished ON pages (team_id, finished_at DESC, id) WHERE archived_at IS NULL AND finished_at IS NOT NULL;
CREATE INDEX pages_set_aside ON pages (team_id, archived_at DESC, id) WHERE archived_at IS NOT NULL;
CREATE INDEX pages_of_sketch ON pages (sketch_id, changed_at DESC);
CREATE INDEX versions_of_revision ON page_versions (page_id, revision);
CREATE INDEX links_of_team ON links (team_id, made_at DESC);
CREATE INDEX pictures_of_team ON pictures (team_id, made_at DESC, id);
