-- The stash: papers, cards, scraps, pieces and tools, a team's or a maker's own. `held` is what pages' plans hold of an item: never more than
-- there is.
CREATE TABLE stash_items (
    id uuid PRIMARY KEY,
    team_id uuid NOT NULL REFERENCES teams (id),
    person_id uuid REFERENCES people (id),
    kind text NOT NULL,
    document jsonb NOT NULL,
    words text NOT NULL,
    long_side bigint NOT NULL,
    short_side bigint NOT NULL,
    count integer NOT NULL CHECK (count >= 0),
    held integer NOT NULL DEFAULT 0 CHECK (held BETWEEN 0 AND count),
    revision integer NOT NULL DEFAULT 1,
    made_by text NOT NULL,
    made_at timestamptz NOT NULL DEFAULT clock_timestamp(),
    gone_at timestamptz
);
CREATE INDEX stash_items_of_team ON stash_items (team_id, made_at, id) WHERE gone_at IS NULL;

-- What a page's plan asks for of an item, and what of that it got. Who asked first gets first.
CREATE TABLE stash_holds (
    item_id uuid NOT NULL REFERENCES stash_items (id),
    page_id uuid NOT NULL REFERENCES pages (id),
    team_id uuid NOT NULL REFERENCES teams (id),
    wanted integer NOT NULL CHECK (wanted > 0),
    held integer NOT NULL CHECK (held BETWEEN 0 AND wanted),
    asked_at timestamptz NOT NULL DEFAULT clock_timestamp(),
    PRIMARY KEY (item_id, page_id)
);
CREATE INDEX stash_holds_of_page ON stash_holds (page_id);

-- Pictures of papers lie among the others, and are offered to nobody as a photo or a sketch. Main colours are found when they are first asked for.
ALTER TABLE pictures ADD COLUMN is_paper boolean NOT NULL DEFAULT false;
ALTER TABLE pictures ADD COLUMN colours jsonb;
