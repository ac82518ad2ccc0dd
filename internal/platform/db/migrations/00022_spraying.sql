-- +goose Up
-- Kinds of nozzle as their makers' tables give them; the crew changes the list.
create table nozzles (
    id uuid primary key default gen_random_uuid(), key text not null, name text not null,
    least_lpm double precision not null, most_lpm double precision not null, least_bar double precision not null, most_bar double precision not null, droplets text not null,
    active boolean not null default true, version int not null default 1,
    constraint nozzles_key_once unique (key),
    constraint nozzles_flow check (least_lpm > 0 and most_lpm >= least_lpm and least_bar > 0 and most_bar >= least_bar),
    constraint nozzles_name check (length(trim(name)) between 1 and 60)
);
-- How a field is sprayed by an aircraft of a job. What follows from the wish is worked out each time it is asked.
create table spray_plans (
    id uuid primary key, job_id uuid not null references jobs, aircraft_id uuid not null references aircraft,
    wish jsonb not null, basis text not null default '', -- where its passes lay when the first was sprayed
    version int not null default 1, by_name text not null, at timestamptz not null,
    constraint spray_plans_once unique (job_id, aircraft_id)
);
-- What is sprayed of its passes: shares from the beginning of a pass. Taken back stays on file.
create table spray_done (
    id uuid primary key, plan_id uuid not null references spray_plans, pass int not null, from_share double precision not null, to_share double precision not null,
    area_m2 double precision not null, litres double precision not null, flight_id uuid references flights, at timestamptz not null, by_name text not null,
    back_at timestamptz, back_by text,
    constraint spray_done_share check (pass >= 0 and from_share >= 0 and from_share < to_share and to_share <= 1),
    constraint spray_done_back check ((back_at is null) = (back_by is null))
);
create index spray_done_plan on spray_done (plan_id);
-- Fills at the truck: what goes in, in order, and who saw it go in.
create table spray_fills (
    id uuid primary key, plan_id uuid not null references spray_plans, number int not null, litres double precision not null, ha double precision not null,
    lines jsonb not null, mass_kg double precision, at timestamptz not null, by_name text not null, version int not null default 1,
    constraint spray_fills_once unique (plan_id, number), constraint spray_fills_litres check (litres >= 0 and number >= 1)
);
-- What was applied, as authorities ask for it, signed. It does not change.
create table spray_records (
    id uuid primary key, plan_id uuid not null references spray_plans, content jsonb not null, from_at timestamptz not null, to_at timestamptz not null, at timestamptz not null, by_name text not null
);
create index spray_records_newest on spray_records (to_at desc, id desc);
create trigger spray_records_append_only before update or delete on spray_records for each row execute function refuse_change();
-- Calibrations of what sprays and spreads.
create table spray_checks (
    id uuid primary key, aircraft_id uuid not null references aircraft, kind text not null, input jsonb not null, verdict text not null, sentence text not null, at timestamptz not null, by_name text not null,
    constraint spray_checks_verdict check (verdict in ('clear', 'watch', 'stop'))
);
create index spray_checks_newest on spray_checks (aircraft_id, kind, at desc);
-- What a flight took, for what the airframe learns.
alter table flights add column mass_kg double precision, add column rho_kgm3 double precision, add column pack_from jsonb, add column home jsonb, add column used_wh double precision, add column predicted_wh double precision;
create trigger spray_records_tell after insert or update or delete on spray_records for each statement execute function tell_change();
create trigger nozzles_tell after insert or update or delete on nozzles for each statement execute function tell_change();
create trigger spray_plans_tell after insert or update or delete on spray_plans for each statement execute function tell_change();
create trigger spray_done_tell after insert or update or delete on spray_done for each statement execute function tell_change();
create trigger spray_fills_tell after insert or update or delete on spray_fills for each statement execute function tell_change();
create trigger spray_checks_tell after insert or update or delete on spray_checks for each statement execute function tell_change();
call note_family('spray_records', 'spray_records', 'x.id::text', 'to_jsonb(x)');
call note_family('nozzles', 'nozzles', 'x.id::text', 'to_jsonb(x)');
call note_family('spray_plans', 'spray_plans', 'x.id::text', 'to_jsonb(x)');
call note_family('spray_done', 'spray_done', 'x.id::text', 'to_jsonb(x)');
call note_family('spray_fills', 'spray_fills', 'x.id::text', 'to_jsonb(x)');
call note_family('spray_checks', 'spray_checks', 'x.id::text', 'to_jsonb(x)');

-- +goose Down
alter table flights drop column predicted_wh, drop column used_wh, drop column home, drop column pack_from, drop column rho_kgm3, drop column mass_kg;
drop table spray_checks;
drop table spray_records;
drop table spray_fills;
drop table spray_done;
drop table spray_plans;
drop table nozzles;
