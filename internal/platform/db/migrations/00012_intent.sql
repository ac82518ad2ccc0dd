-- +goose Up
-- A job says how it will be flown: from where, to where, at which heights, with which mass.
alter table jobs add column take_off_id uuid references site_features, add column landing_id uuid references site_features, add column second_id uuid references site_features,
    add column label_low_ms double precision constraint jobs_label_low check (label_low_ms between 0 and 20), add column label_high_ms double precision constraint jobs_label_high check (label_high_ms between 0 and 30),
    add column label_height_m double precision constraint jobs_label_height check (label_height_m between 0.5 and 20),
    add constraint jobs_label_order check (label_low_ms is null or label_high_ms is null or label_high_ms > label_low_ms);
alter table job_aircraft drop constraint job_route, add constraint job_route check (route_m between -500 and 7000),
    add column route_datum text not null default '' constraint job_datum_known check (route_datum in ('', 'take-off', 'ground', 'sea')),
    add column mass_kg double precision constraint job_mass check (mass_kg between 0.05 and 1000);
-- What an aircraft usually takes off with, weighed.
alter table aircraft add column mass_kg double precision constraint aircraft_mass check (mass_kg between 0.05 and 1000), add column weighed_on date;

-- What the heights of a zone are counted from.
alter table zones add column floor_datum text not null default '' constraint zones_floor_datum check (floor_datum in ('', 'ground', 'sea', 'flight-level')),
    add column ceiling_datum text not null default '' constraint zones_ceiling_datum check (ceiling_datum in ('', 'ground', 'sea', 'flight-level')),
    drop constraint zones_upright, add constraint zones_upright check (floor_m is null or ceiling_m is null or ceiling_m > floor_m or floor_datum <> ceiling_datum);

-- What a named person decided about how an aircraft of a job is flown.
create table job_decisions (
    id uuid primary key, job_id uuid not null references jobs, aircraft_id uuid not null references aircraft,
    kind text not null constraint job_decisions_kind_known check (kind in ('by-hand', 'hold-and-look', 'way-round', 'other-place', 'set-return', 'level-ground')),
    reason text not null constraint job_decisions_reason check (length(trim(reason)) >= 3), basis text not null, way jsonb,
    person_id uuid not null references people, by_name text not null, at timestamptz not null, record_seq bigint references records
);
create index job_decisions_of on job_decisions (job_id, aircraft_id, at);
create trigger job_decisions_tell after insert or update or delete on job_decisions for each statement execute function tell_change();

-- +goose Down
drop table job_decisions;
alter table zones drop constraint zones_upright, drop column floor_datum, drop column ceiling_datum,
    add constraint zones_upright check (floor_m is null or ceiling_m is null or ceiling_m > floor_m);
alter table aircraft drop column mass_kg, drop column weighed_on;
alter table job_aircraft drop column mass_kg, drop column route_datum, drop constraint job_route, add constraint job_route check (route_m between 0.5 and 500);
alter table jobs drop constraint jobs_label_order, drop column take_off_id, drop column landing_id, drop column second_id, drop column label_low_ms, drop column label_high_ms, drop column label_height_m;
