-- Every row belongs to a team, from the first table on.
CREATE TABLE teams (
    id uuid PRIMARY KEY,
    name text NOT NULL,
    made_at timestamptz NOT NULL DEFAULT now()
);

CREATE TABLE sketches (
    id uuid PRIMARY KEY,
    team_id uuid NOT NULL REFERENCES teams (id),
    name text NOT NULL,
    document jsonb NOT NULL,
    made_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX sketches_of_team ON sketches (team_id, made_at, id);

-- A page's plan is one document with versions: the page knows its newest, page_revisions holds them all.
CREATE TABLE pages (
    id uuid PRIMARY KEY,
    team_id uuid NOT NULL REFERENCES teams (id),
    sketch_id uuid REFERENCES sketches (id),
    name text NOT NULL,
    revision integer NOT NULL CHECK (revision >= 1),
    made_at timestamptz NOT NULL DEFAULT now(),
    changed_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX pages_of_team ON pages (team_id, changed_at DESC, id);

CREATE TABLE page_revisions (
    page_id uuid NOT NULL REFERENCES pages (id),
    team_id uuid NOT NULL REFERENCES teams (id),
    revision integer NOT NULL CHECK (revision >= 1),
    plan jsonb NOT NULL,
    author text NOT NULL,
    reason text NOT NULL,
    made_at timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (page_id, revision)
);
