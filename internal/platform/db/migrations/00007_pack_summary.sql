-- +goose Up
-- What the rack needs of a pack's standing, without the points of its curves.
alter table pack_outlooks add column summary jsonb not null default '{}';
update pack_outlooks set summary = content - 'points' - 'trend' || '{"points": [], "trend": []}';

-- The newest reading of every pack without sorting.
drop index pack_readings_newest;
create index pack_readings_newest on pack_readings (pack_id, at desc, id desc);

-- +goose Down
drop index pack_readings_newest;
create index pack_readings_newest on pack_readings (pack_id, at desc);
alter table pack_outlooks drop column summary;
