-- What happened to a team's things, for those who look at them now: a notice, not a record. Swept after a day.
CREATE TABLE events (
    id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    team_id uuid NOT NULL REFERENCES teams (id),
    what text NOT NULL,
    thing uuid NOT NULL,
    revision integer NOT NULL,
    author text NOT NULL,
    -- Of a job: its state, and how far it is.
    state text,
    progress text,
    at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX events_of_team ON events (team_id, id);

-- Long work. Any server takes what waits, under a lease that it prolongs; when a lease runs out, the next one takes the job over.
CREATE TABLE jobs (
    id uuid PRIMARY KEY,
    team_id uuid NOT NULL REFERENCES teams (id),
    kind text NOT NULL,
    -- Of jobs with one key only one waits or runs at a time.
    key text,
    input jsonb NOT NULL,
    asked_by text NOT NULL,
    state text NOT NULL DEFAULT 'waiting' CHECK (state IN ('waiting', 'running', 'done', 'failed', 'cancelled')),
    progress text,
    outcome jsonb,
    problem jsonb,
    tries integer NOT NULL DEFAULT 0,
    -- One more whenever it is told: so that a later word is not taken for an earlier one.
    told integer NOT NULL DEFAULT 0,
    lease uuid,
    lease_until timestamptz,
    made_at timestamptz NOT NULL DEFAULT now(),
    ended_at timestamptz
);
CREATE INDEX jobs_to_do ON jobs (made_at) WHERE state IN ('waiting', 'running');
CREATE UNIQUE INDEX jobs_under_way ON jobs (team_id, kind, key) WHERE key IS NOT NULL AND state IN ('waiting', 'running');
CREATE INDEX jobs_of_team ON jobs (team_id, made_at DESC);
CREATE INDEX jobs_by_end ON jobs (ended_at);
