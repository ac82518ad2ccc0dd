-- +goose Up
-- A list is walked in rounds of several kinds. What was known of the day when one began, its pace, the picture that it shows
-- as a drill, who is asked by name, and the photos of the paper that it was entered from.
alter table walkrounds drop constraint walkrounds_kind_known;
alter table walkrounds add constraint walkrounds_kind_known check (kind in ('walkround', 'turnaround', 'hover', 'landing', 'stand-down', 'day-before', 'kit-out', 'kit-in', 'weekly', 'bench', 'outdoor')),
    add column facts jsonb not null default '{}', add column pace jsonb, add column pace_said text not null default '', add column drill jsonb not null default '{}',
    add column left_out jsonb not null default '[]', add column names jsonb not null default '[]', add column paper jsonb not null default '[]';
drop index walkrounds_open_once;
create unique index walkrounds_open_once on walkrounds (aircraft_id, (case when kind in ('walkround', 'turnaround') then 'check' else kind end)) where completed_at is null and abandoned_at is null;
-- Who walks with another one sees each mark at once.
create trigger walkround_entries_tell after insert or update or delete on walkround_entries for each statement execute function tell_change();
-- How far the nearest metal was when a compass was calibrated.
alter table calibrations add column metal_m double precision constraint calibrations_metal check (metal_m between 0 and 10000);
-- How a person's sticks are set; nobody picks up a controller set for somebody else.
alter table people add column stick_mode smallint constraint people_stick_mode check (stick_mode between 1 and 4);

-- +goose Down
alter table people drop column stick_mode;
alter table calibrations drop column metal_m;
drop trigger walkround_entries_tell on walkround_entries;
drop index walkrounds_open_once;
delete from walkround_entries where walkround_id in (select id from walkrounds where kind not in ('walkround', 'turnaround'));
delete from walkrounds where kind not in ('walkround', 'turnaround');
create unique index walkrounds_open_once on walkrounds (aircraft_id) where completed_at is null and abandoned_at is null;
alter table walkrounds drop column paper, drop column names, drop column left_out, drop column drill, drop column pace_said, drop column pace, drop column facts, drop constraint walkrounds_kind_known;
alter table walkrounds add constraint walkrounds_kind_known check (kind in ('walkround', 'turnaround'));
