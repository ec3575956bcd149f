-- A routine that is handed out: a page of its drills, for whoever has its link.
-- +goose Up
CREATE TABLE handed_out (
    token        CHAR(43)        NOT NULL PRIMARY KEY COLLATE ascii_bin,
    club_id      BIGINT UNSIGNED NOT NULL,
    routine      BIGINT UNSIGNED NOT NULL,
    made_at      DATETIME(6)     NOT NULL DEFAULT CURRENT_TIMESTAMP(6),
    withdrawn_at DATETIME(6)     NULL,
    KEY handed_out_routine (club_id, routine),
    CONSTRAINT handed_out_club FOREIGN KEY (club_id) REFERENCES club (id)
);

-- +goose Down
DROP TABLE handed_out;
