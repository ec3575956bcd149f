-- A player chooses from their phone.
-- +goose Up
ALTER TABLE word MODIFY kind VARCHAR(16) NOT NULL CHECK (kind IN ('late', 'easier', 'sore', 'pain', 'grid', 'missing', 'choice'));
-- +goose Down
DELETE FROM word WHERE kind = 'choice';
ALTER TABLE word MODIFY kind VARCHAR(16) NOT NULL CHECK (kind IN ('late', 'easier', 'sore', 'pain', 'grid', 'missing'));
