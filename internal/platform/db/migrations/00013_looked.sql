-- +goose Up
-- Nobody's entry replaces another's, and an entry that its own maker changed stays in sight.
alter table walkround_entries add column id uuid not null default gen_random_uuid(), add column person_id uuid references people, add column until timestamptz;
alter table walkround_entries drop constraint walkround_entries_pkey, add primary key (id);
create unique index walkround_entries_once on walkround_entries (walkround_id, item_id, coalesce(person_id, '00000000-0000-0000-0000-000000000000')) where until is null;
create index walkround_entries_of on walkround_entries (walkround_id, at);

-- Where a defect comes from: a person saw it, a walk found it, a flight showed it.
alter table defects add column origin text not null default 'person' constraint defects_origin_known check (origin in ('person', 'walk', 'flight')),
    add column item text not null default '', add column flight_id uuid references flights;
create unique index defects_found_once on defects (aircraft_id, item) where closed_at is null and item <> '';

-- What the next walk must know, and what a landing showed besides the numbers.
alter table flights add column next_time text not null default '', add column signs text[] not null default '{}';

-- Base and practice sites, and flights that are no order of a client.
alter table sites add column practice boolean not null default false;
alter table jobs drop constraint jobs_work_known, add constraint jobs_work_known check (work in ('spraying', 'mapping', 'inspection', 'practice'));

-- Gear belongs to an aircraft or to nobody; somebody looked at it.
alter table gear add column aircraft_id uuid references aircraft, add column looked_at timestamptz, add column looked_by text not null default '', add column found text not null default '';
create index gear_of on gear (aircraft_id) where aircraft_id is not null;

-- +goose Down
drop index gear_of;
alter table gear drop column aircraft_id, drop column looked_at, drop column looked_by, drop column found;
alter table jobs drop constraint jobs_work_known, add constraint jobs_work_known check (work in ('spraying', 'mapping', 'inspection'));
alter table sites drop column practice;
alter table flights drop column next_time, drop column signs;
drop index defects_found_once;
alter table defects drop column origin, drop column item, drop column flight_id;
drop index walkround_entries_of;
drop index walkround_entries_once;
delete from walkround_entries where until is not null;
alter table walkround_entries drop constraint walkround_entries_pkey, drop column id, drop column person_id, drop column until, add primary key (walkround_id, item_id);
