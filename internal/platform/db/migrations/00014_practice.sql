-- +goose Up
-- What the crew keeps where crews differ, by question; what is missing is the default.
alter table crew add column practices jsonb not null default '{}';
update crew set practices = jsonb_build_object('return-margin', jsonb_build_object('school', 'larger', 'numbers', jsonb_build_object('m', margin_m, 'percent', margin_percent)))
    where margin_m <> 10 or margin_percent <> 20;
alter table crew drop column margin_m, drop column margin_percent;
-- What was kept when a check began: its items were asked by it.
alter table walkrounds add column practice jsonb not null default '{}', add column kept text not null default '';
create table calibrations (
    id uuid primary key,
    aircraft_id uuid not null references aircraft (id),
    site_id uuid references sites (id),
    at timestamptz not null,
    by_id uuid not null references people (id),
    by_name text not null,
    note text not null default ''
);
create trigger calibrations_tell after insert or update or delete on calibrations for each statement execute function tell_change();
create index calibrations_newest on calibrations (aircraft_id, at desc);

-- +goose Down
drop table calibrations;
alter table walkrounds drop column practice, drop column kept;
alter table crew add column margin_m double precision not null default 10 constraint crew_margin_m check (margin_m between 5 and 100),
    add column margin_percent double precision not null default 20 constraint crew_margin_percent check (margin_percent between 0 and 100);
alter table crew drop column practices;
