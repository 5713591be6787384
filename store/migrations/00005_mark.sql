-- +goose Up
-- "UPLD": the file says whose it is.
PRAGMA application_id = 1431325764;

-- +goose Down
PRAGMA application_id = 0;
