-- The side of the bat, where it is not that of the hand.
-- +goose Up
ALTER TABLE player ADD COLUMN bats VARCHAR(8) NOT NULL DEFAULT '' CHECK (bats IN ('', 'left', 'right', 'both')) AFTER hand;

-- +goose Down
ALTER TABLE player DROP COLUMN bats;
