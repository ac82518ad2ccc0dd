-- +goose Up
-- Not known until somebody enters it, or the terrain says it.
alter table sites alter column elevation_m drop not null;

-- +goose Down
update sites set elevation_m = 0 where elevation_m is null;
alter table sites alter column elevation_m set not null;
