-- +goose Up
-- What each pack showed after the flight, so that one whose use drifts is found.
alter table flights add column pack_to jsonb;

-- +goose Down
alter table flights drop column pack_to;
