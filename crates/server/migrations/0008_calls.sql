-- What is asked of a team. Calls are changed as sketches are: each change is a revision, and a write names the one it started from.
ALTER TABLE sketches ADD UNIQUE (team_id, id);
ALTER TABLE pages ADD UNIQUE (team_id, id);
CREATE TABLE calls (
    id uuid PRIMARY KEY,
    team_id uuid NOT NULL REFERENCES teams (id),
    name text NOT NULL,
    document jsonb NOT NULL,
    -- The document's own day, for sorting and looking back.
    due date,
    -- The sketch in the drawer that is asked for.
    sketch_id uuid,
    revision integer NOT NULL DEFAULT 1 CHECK (revision >= 1),
    -- What comes again is a row for each time: all of one series, each made for a day of it.
    series uuid,
    made_for date,
    made_by text NOT NULL,
    made_at timestamptz NOT NULL DEFAULT now(),
    archived_at timestamptz,
    UNIQUE (team_id, id),
    UNIQUE (series, made_for),
    FOREIGN KEY (team_id, sketch_id) REFERENCES sketches (team_id, id)
);
CREATE INDEX calls_of_season ON calls (team_id, due) WHERE archived_at IS NULL;
CREATE INDEX calls_of_series ON calls (series, due) WHERE series IS NOT NULL;
CREATE TABLE call_revisions (
    call_id uuid NOT NULL REFERENCES calls (id) ON DELETE CASCADE,
    team_id uuid NOT NULL REFERENCES teams (id),
    revision integer NOT NULL CHECK (revision >= 1),
    document jsonb NOT NULL,
    author text NOT NULL,
    reason text NOT NULL,
    made_at timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (call_id, revision)
);

-- Who takes part in a call, and with which page.
CREATE TABLE call_makers (
    team_id uuid NOT NULL REFERENCES teams (id),
    call_id uuid NOT NULL,
    person_id uuid NOT NULL REFERENCES people (id),
    page_id uuid,
    taken_at timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (call_id, person_id),
    UNIQUE (page_id),
    FOREIGN KEY (team_id, call_id) REFERENCES calls (team_id, id),
    FOREIGN KEY (team_id, page_id) REFERENCES pages (team_id, id)
);
CREATE INDEX call_makers_of_team ON call_makers (team_id, person_id);

-- The chain of a hop, in the order of its days: people of the team, or somebody from outside by name.
CREATE TABLE hop_links (
    team_id uuid NOT NULL REFERENCES teams (id),
    call_id uuid NOT NULL,
    place integer NOT NULL CHECK (place >= 0),
    person_id uuid REFERENCES people (id),
    name text,
    url text,
    -- What stands for the page of somebody from outside.
    sketch_id uuid,
    day date NOT NULL,
    PRIMARY KEY (call_id, place),
    UNIQUE (call_id, person_id),
    UNIQUE (call_id, day),
    CHECK ((person_id IS NULL) <> (name IS NULL)),
    FOREIGN KEY (team_id, call_id) REFERENCES calls (team_id, id),
    FOREIGN KEY (team_id, sketch_id) REFERENCES sketches (team_id, id)
);

-- The address at which a person's own calendar fetches her dates in a team; only its token's hash is kept.
CREATE TABLE feeds (
    team_id uuid NOT NULL REFERENCES teams (id),
    person_id uuid NOT NULL REFERENCES people (id),
    token_hash bytea NOT NULL UNIQUE,
    made_at timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (team_id, person_id)
);

-- How many of a page's stations its newest plan has settled, and whether the fit is one of them: a season asks this of hundreds of
-- pages. Empty for plans from before this, until they are changed.
ALTER TABLE pages ADD COLUMN settled smallint;
ALTER TABLE pages ADD COLUMN fit_settled boolean;
