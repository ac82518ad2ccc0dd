-- +goose Up
-- A reading of a walk may hold what was confirmed beside what was read anew: of which readings, and whose cells
-- they are. Cells of another reading stand in the history of the pack once, where they were read.
alter table pack_readings add column confirms uuid[] not null default '{}', add column cells_from uuid references pack_readings;

-- +goose Down
alter table pack_readings drop column cells_from, drop column confirms;
