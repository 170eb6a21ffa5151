-- What finished pages took out of the stash. It is no longer there; a page that is taken up again gives it back.
CREATE TABLE stash_used (
    item_id uuid NOT NULL REFERENCES stash_items (id),
    page_id uuid NOT NULL REFERENCES pages (id),
    team_id uuid NOT NULL REFERENCES teams (id),
    used integer NOT NULL CHECK (used > 0),
    PRIMARY KEY (item_id, page_id)
);
CREATE INDEX stash_used_of_page ON stash_used (page_id);
