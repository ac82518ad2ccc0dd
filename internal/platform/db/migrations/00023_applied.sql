-- +goose Up
-- What a part of a pass was sprayed with: mix, registration number and label as they stood then.
alter table spray_done add column applied jsonb not null default '{}';

-- +goose Down
alter table spray_done drop column applied;
