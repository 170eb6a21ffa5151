-- Pages entered in the gallery: all that was sent, as it was then, and how the entry stands.
CREATE TABLE gallery_entries (
    id uuid PRIMARY KEY,
    team_id uuid NOT NULL REFERENCES teams (id),
    page_id uuid NOT NULL REFERENCES pages (id),
    challenge uuid REFERENCES calls (id) ON DELETE SET NULL,
    replaces uuid REFERENCES gallery_entries (id),
    entry jsonb NOT NULL,
    state text NOT NULL DEFAULT 'sent' CHECK (state IN ('sent', 'open', 'entered', 'refused', 'withdrawing', 'withdrawn')),
    address text,
    why text,
    job_id uuid NOT NULL,
    asked_by text NOT NULL,
    made_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX gallery_entries_of_page ON gallery_entries (page_id, made_at DESC);

-- The simulated gallery of a team: how it is today.
CREATE TABLE galleries (
    team_id uuid PRIMARY KEY REFERENCES teams (id),
    mood text NOT NULL DEFAULT 'well' CHECK (mood IN ('well', 'slow', 'refuses', 'gone', 'vanishes', 'rubbish'))
);

-- What hangs there. A maker has one entry for a challenge.
CREATE TABLE gallery_wall (
    entry_id uuid PRIMARY KEY,
    team_id uuid NOT NULL REFERENCES teams (id),
    number integer NOT NULL,
    challenge text,
    maker text NOT NULL,
    title text NOT NULL,
    credits text[] NOT NULL,
    told text NOT NULL,
    pictures integer NOT NULL,
    taken_at timestamptz NOT NULL DEFAULT now(),
    down_at timestamptz,
    UNIQUE (team_id, number)
);
CREATE UNIQUE INDEX gallery_wall_one_a_maker ON gallery_wall (team_id, challenge, maker) WHERE down_at IS NULL AND challenge IS NOT NULL;
