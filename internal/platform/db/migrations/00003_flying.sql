-- +goose Up
create table checklists (
    type_key text not null, version int not null, content jsonb not null, created_at timestamptz not null,
    constraint checklist_version_once primary key (type_key, version)
);
create table photos (
    id uuid primary key, media_type text not null, bytes int not null, sha256 bytea not null, by_name text not null, at timestamptz not null
);
create table walkrounds (
    id uuid primary key, aircraft_id uuid not null references aircraft,
    kind text not null constraint walkrounds_kind_known check (kind in ('walkround', 'turnaround')),
    checklist_version int not null, type_key text not null, type_version int not null, pack_ids uuid[] not null,
    started_by text not null, started_at timestamptz not null,
    completed_by text not null default '', completed_at timestamptz, abandoned_at timestamptz,
    verdict text not null default '', findings jsonb not null default '[]', record_seq bigint references records,
    constraint walkrounds_end check (completed_at is null or abandoned_at is null),
    foreign key (type_key, checklist_version) references checklists
);
create unique index walkrounds_open_once on walkrounds (aircraft_id) where completed_at is null and abandoned_at is null;
create index walkrounds_newest on walkrounds (aircraft_id, kind, completed_at desc);
create table walkround_entries (
    walkround_id uuid not null references walkrounds, item_id text not null, value jsonb not null,
    verdict text not null, sentence text not null, against text not null, by_name text not null, at timestamptz not null,
    primary key (walkround_id, item_id)
);
create table defects (
    id uuid primary key, aircraft_id uuid not null references aircraft, station text not null, title text not null, note text not null,
    severity text not null constraint defects_severity_known check (severity in ('watch', 'stop')), photos uuid[] not null,
    walkround_id uuid references walkrounds, raised_by text not null, raised_at timestamptz not null,
    closed_at timestamptz, closed_by text not null default '', closing_note text not null default ''
);
create index defects_open on defects (aircraft_id) where closed_at is null;

create table releases (
    id uuid primary key, aircraft_id uuid not null references aircraft, pilot_id uuid not null references people,
    pack_ids uuid[] not null, wind jsonb not null, purpose text not null, gate jsonb not null, gate_hash text not null, verdict text not null,
    at timestamptz not null, state text not null constraint releases_state_known check (state in ('open', 'flown', 'withdrawn')),
    record_seq bigint references records
);
create unique index releases_open_once on releases (aircraft_id) where state = 'open';

create table flights (
    id uuid primary key, release_id uuid references releases, aircraft_id uuid not null references aircraft, pilot_id uuid not null references people,
    pack_ids uuid[] not null, purpose text not null, took_off_at timestamptz not null, landed_at timestamptz, logged_at timestamptz,
    state text not null constraint flights_state_known check (state in ('air', 'landed', 'logged')),
    seconds int not null default 0 constraint flights_seconds check (seconds >= 0 and seconds <= 86400),
    landings int not null default 0 constraint flights_landings check (landings between 0 and 50), remarks text not null default '', hover jsonb, warmth jsonb, warmth_motor int,
    source text not null default 'live', events int not null default 0,
    constraint flights_release_once unique (release_id),
    constraint flights_order check (landed_at is null or landed_at >= took_off_at)
);
create unique index flights_aircraft_open_once on flights (aircraft_id) where state <> 'logged';
create unique index flights_pilot_air_once on flights (pilot_id) where state = 'air';
create index flights_newest on flights (took_off_at desc, id desc);
create index flights_aircraft on flights (aircraft_id, took_off_at desc);
-- +goose StatementBegin
create function refuse_logged_change() returns trigger language plpgsql as $$
begin
    if old.state = 'logged' then
        raise exception 'a logged flight does not change' using errcode = 'restrict_violation', constraint = 'flights_append_only';
    end if;
    if tg_op = 'DELETE' then return old; end if;
    return new;
end $$;
-- +goose StatementEnd
create trigger flights_append_only before update or delete on flights for each row execute function refuse_logged_change();

create table flight_events (
    id uuid primary key, flight_id uuid not null references flights, kind text not null, note text not null, at timestamptz not null, by_name text not null
);
create index flight_events_flight on flight_events (flight_id, at);

-- What each flight put on each thing; the counters of the things are its sums.
create table flight_use (
    flight_id uuid not null references flights, thing text not null constraint flight_use_thing_known check (thing in ('aircraft', 'part', 'pack')),
    thing_id uuid not null, seconds int not null, flights int not null, landings int not null, cycles int not null,
    primary key (flight_id, thing, thing_id)
);
create index flight_use_thing on flight_use (thing, thing_id);

-- +goose Down
drop table flight_use;
drop table flight_events;
drop table flights;
drop function refuse_logged_change;
drop table releases;
drop table defects;
drop table walkround_entries;
drop table walkrounds;
drop table photos;
drop table checklists;
