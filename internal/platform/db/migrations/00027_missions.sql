-- +goose Up
-- Cameras as their makers' tables give them; the crew changes the list.
create table cameras (
    id uuid primary key, key text not null, name text not null,
    sensor_w_mm double precision not null, sensor_h_mm double precision not null, focal_mm double precision not null, pixels_w int not null, pixels_h int not null,
    least_s double precision not null, picture_mb double precision not null, base_iso int not null,
    active boolean not null default true, version int not null default 1,
    constraint cameras_key_once unique (key),
    constraint cameras_figures check (sensor_w_mm > 0 and sensor_h_mm > 0 and focal_mm > 0 and pixels_w > 0 and pixels_h > 0 and least_s >= 0 and picture_mb > 0 and base_iso > 0),
    constraint cameras_name check (length(trim(name)) between 1 and 60)
);
-- How an aircraft of a job takes its pictures: the wish, and the flights as they were worked out when it was kept.
create table mission_plans (
    id uuid primary key, job_id uuid not null references jobs, aircraft_id uuid not null references aircraft,
    wish jsonb not null, flights jsonb not null, basis text not null, -- what of the map it was laid over
    version int not null default 1, by_name text not null, at timestamptz not null,
    constraint mission_plans_once unique (job_id, aircraft_id)
);
-- What an aircraft held when it was read back, and how that differed. It does not change.
create table mission_reads (
    id uuid primary key, plan_id uuid not null references mission_plans, number int not null, planned_hash text not null, sent boolean not null, source text not null,
    content jsonb not null, differences jsonb not null, judged jsonb not null, verdict text not null, at timestamptz not null, by_name text not null,
    constraint mission_reads_verdict check (verdict in ('clear', 'watch', 'stop')), constraint mission_reads_number check (number >= 1)
);
create index mission_reads_newest on mission_reads (plan_id, number, at desc);
create trigger mission_reads_append_only before update or delete on mission_reads for each row execute function refuse_change();
-- The camera before a flight, as it was set and seen. It does not change; the newest counts.
create table camera_cards (
    id uuid primary key, plan_id uuid not null references mission_plans, content jsonb not null, at timestamptz not null, by_name text not null
);
create index camera_cards_newest on camera_cards (plan_id, at desc);
create trigger camera_cards_append_only before update or delete on camera_cards for each row execute function refuse_change();
-- Flights of a plan that were flown, and the places of their pictures. Taken back stays on file.
create table mission_flown (
    id uuid primary key, plan_id uuid not null references mission_plans, number int not null, flight_id uuid references flights,
    shots jsonb not null, taken jsonb not null, running boolean, shake text not null default '', at timestamptz not null, by_name text not null,
    back_at timestamptz, back_by text,
    constraint mission_flown_number check (number >= 1), constraint mission_flown_back check ((back_at is null) = (back_by is null))
);
create unique index mission_flown_once on mission_flown (plan_id, number) where back_at is null;
-- What was found on a picture. Taken back stays on file.
create table mission_findings (
    id uuid primary key, plan_id uuid not null references mission_plans, picture text not null, place text not null, words text not null, severity text not null,
    at timestamptz not null, by_name text not null, back_at timestamptz, back_by text,
    constraint mission_findings_severity check (severity in ('note', 'watch', 'serious')), constraint mission_findings_back check ((back_at is null) = (back_by is null)),
    constraint mission_findings_words check (length(trim(words)) between 1 and 500 and length(trim(picture)) between 1 and 200)
);
create index mission_findings_plan on mission_findings (plan_id, at);
create trigger cameras_tell after insert or update or delete on cameras for each statement execute function tell_change();
create trigger mission_plans_tell after insert or update or delete on mission_plans for each statement execute function tell_change();
create trigger mission_reads_tell after insert or update or delete on mission_reads for each statement execute function tell_change();
create trigger camera_cards_tell after insert or update or delete on camera_cards for each statement execute function tell_change();
create trigger mission_flown_tell after insert or update or delete on mission_flown for each statement execute function tell_change();
create trigger mission_findings_tell after insert or update or delete on mission_findings for each statement execute function tell_change();
call note_family('cameras', 'cameras', 'x.id::text', 'to_jsonb(x)');
call note_family('mission_plans', 'mission_plans', 'x.id::text', 'to_jsonb(x)');
call note_family('mission_reads', 'mission_reads', 'x.id::text', 'to_jsonb(x)');
call note_family('camera_cards', 'camera_cards', 'x.id::text', 'to_jsonb(x)');
call note_family('mission_flown', 'mission_flown', 'x.id::text', 'to_jsonb(x)');
call note_family('mission_findings', 'mission_findings', 'x.id::text', 'to_jsonb(x)');

-- +goose Down
drop table mission_findings;
drop table mission_flown;
drop table camera_cards;
drop table mission_reads;
drop table mission_plans;
drop table cameras;
