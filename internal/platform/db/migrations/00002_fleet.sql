-- +goose Up
create table aircraft_types (
    key text not null, version int not null constraint type_version_positive check (version > 0),
    profile jsonb not null, created_at timestamptz not null,
    constraint type_version_once primary key (key, version)
);
create table aircraft (
    id uuid primary key, type_key text not null, name text not null, serial text not null,
    registration text not null default '', registration_expires date, active boolean not null default true,
    seconds bigint not null default 0, flights int not null default 0, landings int not null default 0,
    last_landing_at timestamptz, version int not null default 1, created_at timestamptz not null,
    constraint aircraft_counters check (seconds >= 0 and flights >= 0 and landings >= 0)
);
create unique index aircraft_name_once on aircraft (lower(name));
create unique index aircraft_serial_once on aircraft (lower(serial));

create table parts (
    id uuid primary key, kind text not null, serial text not null,
    source text not null constraint parts_source_known check (source in ('maker', 'third-party')),
    aircraft_id uuid references aircraft, station text,
    fitted_at timestamptz, discarded_at timestamptz, since timestamptz not null,
    seconds bigint not null default 0, flights int not null default 0, landings int not null default 0, cycles int not null default 0,
    constraint parts_place check ((aircraft_id is null) = (station is null) and (discarded_at is null or aircraft_id is null)),
    constraint parts_counters check (seconds >= 0 and flights >= 0 and landings >= 0 and cycles >= 0)
);
create unique index parts_serial_once on parts (kind, lower(serial));
create unique index parts_station_once on parts (aircraft_id, station) where aircraft_id is not null;

create table part_moves (
    id uuid primary key, part_id uuid not null references parts, aircraft_id uuid not null references aircraft, station text not null,
    fitted_at timestamptz not null, removed_at timestamptz, removed_to text not null default '', by_name text not null,
    constraint part_moves_order check (removed_at is null or removed_at >= fitted_at)
);
create index part_moves_aircraft on part_moves (aircraft_id, fitted_at desc);
create unique index part_moves_open_once on part_moves (part_id) where removed_at is null;

create table packs (
    id uuid primary key, label text not null, serial text not null, chemistry text not null,
    cells int not null constraint packs_cells check (cells between 1 and 24),
    capacity_mah int not null constraint packs_capacity check (capacity_mah between 100 and 200000),
    cycles int not null default 0 constraint packs_cycles check (cycles >= 0),
    state text not null constraint packs_state_known check (state in ('storage','charging','charged','fitted','hot','flown','quarantine','retired')),
    state_since timestamptz not null, aircraft_id uuid references aircraft, seconds bigint not null default 0, flights int not null default 0,
    version int not null default 1, created_at timestamptz not null,
    constraint packs_fitted_place check ((state = 'fitted') = (aircraft_id is not null))
);
create unique index packs_label_once on packs (lower(label));
create unique index packs_serial_once on packs (lower(serial));

create table pack_readings (
    id uuid primary key, pack_id uuid not null references packs, at timestamptz not null, by_name text not null,
    source text not null constraint pack_readings_source check (source in ('hand', 'walkround', 'landing')),
    cell_mv int[] not null, rested_min double precision, percent double precision, temperature_c double precision,
    constraint pack_readings_percent check (percent between 0 and 100)
);
create index pack_readings_newest on pack_readings (pack_id, at desc);

create table groundings (
    id uuid primary key, aircraft_id uuid not null references aircraft,
    cause text not null constraint groundings_cause_known check (cause in ('person', 'contact', 'hard-landing', 'readings')),
    reason text not null, by_name text not null, at timestamptz not null,
    lifted_at timestamptz, lifted_by text not null default '', lifted_note text not null default ''
);
create index groundings_open on groundings (aircraft_id) where lifted_at is null;

-- +goose Down
drop table groundings;
drop table pack_readings;
drop table packs;
drop table part_moves;
drop table parts;
drop table aircraft;
drop table aircraft_types;
