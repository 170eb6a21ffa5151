-- A page holds its newest plan. Its history keeps each change as a patch, with whole plans between.
ALTER TABLE pages ADD COLUMN plan jsonb;
UPDATE pages p SET plan = r.plan FROM page_revisions r WHERE r.page_id = p.id AND r.revision = p.revision;
ALTER TABLE pages ALTER COLUMN plan SET NOT NULL;
ALTER TABLE page_revisions ALTER COLUMN plan DROP NOT NULL;
-- Merge patches of the plan: what the change set, and what takes it back. Earlier revisions have whole plans only.
ALTER TABLE page_revisions ADD COLUMN patch jsonb;
ALTER TABLE page_revisions ADD COLUMN inverse jsonb;
ALTER TABLE page_revisions ADD CHECK (plan IS NOT NULL OR patch IS NOT NULL);
-- The station at which it was made.
ALTER TABLE page_revisions ADD COLUMN station text NOT NULL DEFAULT 'fit';
ALTER TABLE page_revisions ALTER COLUMN station DROP DEFAULT;

-- A page's stations: the revision that last changed the section, and what undo takes back and redo brings back there (revisions whose
-- change that is, the next one last), as of the last revision made at the station.
CREATE TABLE page_stations (
    page_id uuid NOT NULL REFERENCES pages (id),
    team_id uuid NOT NULL REFERENCES teams (id),
    station text NOT NULL,
    revision integer NOT NULL DEFAULT 0,
    steps_revision integer NOT NULL DEFAULT 0,
    undo integer[] NOT NULL DEFAULT '{}',
    redo integer[] NOT NULL DEFAULT '{}',
    PRIMARY KEY (page_id, station)
);
-- Until now each revision knew which one undo and redo led to; all were made at the fit.
INSERT INTO page_stations (page_id, team_id, station, revision, steps_revision, undo, redo)
WITH RECURSIVE undone (page_id, revision, undo_to, depth) AS (
    SELECT r.page_id, r.revision, r.undo_to, 0 FROM pages p JOIN page_revisions r ON r.page_id = p.id AND r.revision = p.revision
    UNION ALL
    SELECT r.page_id, r.revision, r.undo_to, u.depth + 1 FROM undone u JOIN page_revisions r ON r.page_id = u.page_id AND r.revision = u.undo_to
    WHERE u.depth < 500
), redone (page_id, revision, redo_to, depth) AS (
    SELECT r.page_id, r.revision, r.redo_to, 0 FROM pages p JOIN page_revisions r ON r.page_id = p.id AND r.revision = p.revision
    UNION ALL
    SELECT r.page_id, r.revision, r.redo_to, d.depth + 1 FROM redone d JOIN page_revisions r ON r.page_id = d.page_id AND r.revision = d.redo_to
    WHERE d.depth < 500
)
SELECT p.id, p.team_id, 'fit', p.revision, p.revision,
    coalesce((SELECT array_agg(u.revision ORDER BY u.depth DESC) FROM undone u WHERE u.page_id = p.id AND u.undo_to IS NOT NULL), '{}'),
    coalesce((SELECT array_agg(d.redo_to ORDER BY d.depth DESC) FROM redone d WHERE d.page_id = p.id AND d.redo_to IS NOT NULL), '{}')
FROM pages p;
-- What a revision's change started from; the other way is told by the stations.
ALTER TABLE page_revisions RENAME COLUMN undo_to TO changed_from;
ALTER TABLE page_revisions DROP COLUMN redo_to;

-- Layouts by the digest of what they follow from and the engine that computed them: made anew whenever one is missing, so they are no
-- part of a backup.
DROP TABLE page_layouts;
ALTER TABLE pages ADD COLUMN fit_digest bytea;
CREATE TABLE layouts (
    digest bytea NOT NULL,
    engine integer NOT NULL,
    layout jsonb,
    clash text,
    made_at timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (digest, engine)
);
CREATE INDEX pages_by_fit ON pages (fit_digest);
