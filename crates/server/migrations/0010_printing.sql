-- Photos sent to be printed: what lies on each sheet, as it was when they were sent.
CREATE TABLE print_orders (
    id uuid PRIMARY KEY,
    team_id uuid NOT NULL REFERENCES teams (id),
    page_id uuid NOT NULL REFERENCES pages (id),
    sheets jsonb NOT NULL,
    job_id uuid NOT NULL,
    asked_by text NOT NULL,
    made_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX print_orders_of_page ON print_orders (page_id, made_at DESC);

-- The simulated photo printer of a team: what it has left, and whether it jams.
CREATE TABLE printers (
    team_id uuid PRIMARY KEY REFERENCES teams (id),
    paper integer NOT NULL DEFAULT 20 CHECK (paper >= 0),
    ink integer NOT NULL DEFAULT 100 CHECK (ink BETWEEN 0 AND 100),
    jammed boolean NOT NULL DEFAULT false
);

-- What it printed: each sheet of an order once, with a picture of it.
CREATE TABLE printed_sheets (
    order_id uuid NOT NULL REFERENCES print_orders (id),
    sheet integer NOT NULL CHECK (sheet > 0),
    team_id uuid NOT NULL REFERENCES teams (id),
    file text NOT NULL REFERENCES files (name),
    printed_at timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (order_id, sheet)
);
