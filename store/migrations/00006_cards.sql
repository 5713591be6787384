-- +goose Up
-- What a list shows is worked out when it is shown. A rebuilt table would take the revisions
-- with it; dropped columns do not.
ALTER TABLE documents DROP COLUMN verdict;
ALTER TABLE documents DROP COLUMN picture;

-- +goose Down
ALTER TABLE documents ADD COLUMN verdict TEXT NOT NULL DEFAULT '';
ALTER TABLE documents ADD COLUMN picture BLOB NOT NULL DEFAULT x'';
