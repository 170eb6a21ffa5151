-- People, and what they may do in which team.
CREATE TABLE people (
    id uuid PRIMARY KEY,
    -- What she signs in with, in lower case.
    account text NOT NULL UNIQUE,
    name text NOT NULL,
    password_hash text NOT NULL,
    defaults jsonb NOT NULL DEFAULT '{}',
    made_at timestamptz NOT NULL DEFAULT now()
);

CREATE TABLE members (
    team_id uuid NOT NULL REFERENCES teams (id),
    person_id uuid NOT NULL REFERENCES people (id),
    role text NOT NULL CHECK (role IN ('lead', 'member', 'guest')),
    joined_at timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (team_id, person_id)
);
CREATE INDEX members_of_person ON members (person_id);

-- Links that work once: of a server without people to its first lead, and invitations. Only the token's hash is kept.
CREATE TABLE links (
    id uuid PRIMARY KEY,
    token_hash bytea NOT NULL UNIQUE,
    team_id uuid REFERENCES teams (id),
    role text NOT NULL CHECK (role IN ('lead', 'member', 'guest')),
    made_by text NOT NULL,
    made_at timestamptz NOT NULL DEFAULT now(),
    expires_at timestamptz NOT NULL,
    used_at timestamptz
);

-- Who is signed in. The key is the hash of the cookie's value.
CREATE TABLE sessions (
    key bytea PRIMARY KEY,
    data jsonb NOT NULL,
    expires_at timestamptz NOT NULL
);
CREATE INDEX sessions_by_end ON sessions (expires_at);

-- Sign-ins that failed, by the hash of the account or address, for slowing down guesses.
CREATE TABLE failed_sign_ins (
    who bytea NOT NULL,
    at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX failed_sign_ins_of ON failed_sign_ins (who, at);

-- Writes that were done under a key of the sender's, so that a retried one acts once.
CREATE TABLE done_writes (
    person_id uuid NOT NULL REFERENCES people (id),
    key text NOT NULL,
    what text NOT NULL,
    status smallint,
    answer jsonb,
    at timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (person_id, key)
);
CREATE INDEX done_writes_by_age ON done_writes (at);

ALTER TABLE sketches ADD COLUMN archived_at timestamptz;
ALTER TABLE sketches ADD COLUMN changed_at timestamptz NOT NULL DEFAULT now();

ALTER TABLE pages ADD COLUMN due date;
ALTER TABLE pages ADD COLUMN finished_at timestamptz;
ALTER TABLE pages ADD COLUMN archived_at timestamptz;

-- Where undo and redo lead from a revision. Every step is a revision of its own, so nothing is ever taken away.
ALTER TABLE page_revisions ADD COLUMN undo_to integer;
ALTER TABLE page_revisions ADD COLUMN redo_to integer;
UPDATE page_revisions SET undo_to = revision - 1 WHERE revision > 1;
-- Which change brought the plan to what it is: the reason itself, or, after undo and redo, that of the change gone back to.
ALTER TABLE page_revisions ADD COLUMN step text;
UPDATE page_revisions SET step = reason;
ALTER TABLE page_revisions ALTER COLUMN step SET NOT NULL;

CREATE TABLE page_versions (
    page_id uuid NOT NULL REFERENCES pages (id),
    team_id uuid NOT NULL REFERENCES teams (id),
    name text NOT NULL,
    revision integer NOT NULL,
    made_by text NOT NULL,
    made_at timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (page_id, name),
    FOREIGN KEY (page_id, revision) REFERENCES page_revisions (page_id, revision)
);

-- What a page's newest plan comes to: made anew whenever it is missing, so it is no part of a backup.
CREATE TABLE page_layouts (
    page_id uuid PRIMARY KEY REFERENCES pages (id),
    revision integer NOT NULL,
    layout jsonb,
    clash text
);
