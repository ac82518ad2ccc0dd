-- +goose Up
-- What each pack showed after the flight, so that one whose use drifts is found.
alter table flights add column pack_to jsonb;
-- What parts of an aircraft weigh, with the scale that said so. The newest of each counts.
create table weighings (
    id uuid primary key, aircraft_id uuid not null references aircraft, part text not null, kg double precision not null, scale text not null, weighed_on date not null, at timestamptz not null, by_name text not null,
    constraint weighings_part check (part in ('empty', 'packs')), constraint weighings_kg check (kg between 0.01 and 1000), constraint weighings_scale check (length(trim(scale)) between 2 and 60)
);
create index weighings_newest on weighings (aircraft_id, part, weighed_on desc, at desc);
create trigger weighings_append_only before update or delete on weighings for each row execute function refuse_change();
create trigger weighings_tell after insert or update or delete on weighings for each statement execute function tell_change();
call note_family('weighings', 'weighings', 'x.id::text', 'to_jsonb(x)');

-- +goose Down
drop table weighings;
alter table flights drop column pack_to;
