-- +goose Up
-- A board has events as a batch has: the table is everybody's.
ALTER TABLE batch_events RENAME TO events;
ALTER TABLE events RENAME COLUMN batch TO document;

-- +goose Down
ALTER TABLE events RENAME COLUMN document TO batch;
ALTER TABLE events RENAME TO batch_events;
