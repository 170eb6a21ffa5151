-- A picture in the sizes that screens ask for, made when one is first asked for.
CREATE TABLE picture_forms (
    picture_id uuid NOT NULL REFERENCES pictures (id),
    form text NOT NULL,
    file text NOT NULL REFERENCES files (name),
    PRIMARY KEY (picture_id, form)
);
