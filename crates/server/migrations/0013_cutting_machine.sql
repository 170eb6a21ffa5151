-- Sheets sent to the cutting machine: each as the SVG that it was when it was sent.
CREATE TABLE cut_orders (
    id uuid PRIMARY KEY,
    team_id uuid NOT NULL REFERENCES teams (id),
    page_id uuid NOT NULL REFERENCES pages (id),
    sheets jsonb NOT NULL,
    job_id uuid NOT NULL,
    asked_by text NOT NULL,
    made_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX cut_orders_of_page ON cut_orders (page_id, made_at DESC);

-- The simulated cutting machine of a team: which mat it has, what is the matter with it, and after how many lines something will be.
CREATE TABLE cutting_machines (
    team_id uuid PRIMARY KEY REFERENCES teams (id),
    mat text NOT NULL DEFAULT '12x12' CHECK (mat IN ('12x12', '12x24')),
    jammed boolean NOT NULL DEFAULT false,
    lost boolean NOT NULL DEFAULT false,
    trouble text NOT NULL DEFAULT 'none' CHECK (trouble IN ('none', 'jam', 'lost')),
    trouble_after integer NOT NULL DEFAULT 0 CHECK (trouble_after >= 0)
);

-- How far the blade is on each sheet of an order: no line is cut twice.
CREATE TABLE machine_sheets (
    order_id uuid NOT NULL REFERENCES cut_orders (id),
    sheet integer NOT NULL CHECK (sheet > 0),
    team_id uuid NOT NULL REFERENCES teams (id),
    lines integer NOT NULL CHECK (lines > 0),
    cut integer NOT NULL DEFAULT 0 CHECK (cut BETWEEN 0 AND lines),
    PRIMARY KEY (order_id, sheet)
);

-- What the machine did and what stopped it, in words.
CREATE TABLE machine_log (
    order_id uuid NOT NULL REFERENCES cut_orders (id),
    number integer NOT NULL,
    team_id uuid NOT NULL REFERENCES teams (id),
    sheet integer NOT NULL,
    said text NOT NULL,
    at timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (order_id, number)
);
